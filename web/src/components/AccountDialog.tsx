/** One's own account: the password, where one is signed in, and tokens for programs. */
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, data } from "../api/client";
import { useSession } from "../api/projects";
import { notify, notifyError } from "../stores/notices";
import { colours, ONE_LINE } from "../theme/theme";
import { AccountSection } from "./AccountSection";
import { browserOf } from "./browsers";
import { ChoiceField } from "./ChoiceField";
import { PreferenceFields } from "./PreferenceFields";
import { useMoments } from "./moments";
import { TitledDialog } from "./TitledDialog";
import { t } from "../words/words";

const NOTHING: never[] = [];
const SCOPES = [
  ["read", t("May read")],
  ["write", t("May read and change")],
] as const;
type Scope = (typeof SCOPES)[number][0];

export function AccountDialog({ name, onClose }: { name: string; onClose: () => void }) {
  return (
    <TitledDialog
      title={t("Account of {name}", { name })}
      onClose={onClose}
      foot={
        <Button variant="contained" onClick={onClose}>
          {t("Close")}
        </Button>
      }
    >
      <Box sx={{ overflowY: "auto", display: "flex", flexDirection: "column", gap: 2 }}>
        <PreferenceFields />
        <Password />
        <SignedIn />
        <Tokens />
        <Pages />
      </Box>
    </TitledDialog>
  );
}

/** What is outside the interface. */
function Pages() {
  const { data: session } = useSession();
  return (
    <AccountSection title={t("Further pages")} text={t("They open in a window of their own.")}>
      <Box sx={{ display: "flex", gap: 2, fontSize: 13 }}>
        <a href="/api/docs/" target="_blank" rel="noreferrer">
          {t("What programs can ask for, to be tried out")}
        </a>
        {session?.administers && (
          <a href="/admin/state/" target="_blank" rel="noreferrer">
            {t("People and state of this installation")}
          </a>
        )}
      </Box>
    </AccountSection>
  );
}

const LINE = {
  display: "flex",
  alignItems: "center",
  gap: 1,
  py: 0.35,
  fontSize: 13,
  borderBottom: `1px solid ${colours.sandDeep}`,
} as const;
const CUT = { flex: 1, minWidth: 0, ...ONE_LINE } as const;

function Password() {
  const client = useQueryClient();
  const [old, setOld] = useState("");
  const [wanted, setWanted] = useState("");
  const change = useMutation({
    mutationFn: () => data(api.POST("/api/account/password/", { body: { old, new: wanted } })),
    onSuccess: () => {
      setOld("");
      setWanted("");
      notify(t("The password is changed. All other browsers are signed out."));
      void client.invalidateQueries({ queryKey: ["signed-in"] });
    },
  });
  return (
    <AccountSection
      title={t("Password")}
      text={t("12 characters or more. Other browsers are signed out when it changes.")}
    >
      <Box
        component="form"
        onSubmit={(event) => {
          event.preventDefault();
          change.mutate();
        }}
        sx={{ display: "flex", gap: 1, alignItems: "center" }}
      >
        <TextField
          label={t("Old password")}
          type="password"
          autoComplete="current-password"
          value={old}
          onChange={(event) => setOld(event.target.value)}
          fullWidth
        />
        <TextField
          label={t("New password")}
          type="password"
          autoComplete="new-password"
          value={wanted}
          onChange={(event) => setWanted(event.target.value)}
          fullWidth
        />
        <Button type="submit" variant="outlined" disabled={!old || !wanted || change.isPending}>
          {t("Change")}
        </Button>
      </Box>
      {change.error && (
        <Alert severity="error" sx={{ mt: 1 }}>
          {change.error.message}
        </Alert>
      )}
    </AccountSection>
  );
}

function SignedIn() {
  const { momentOf } = useMoments();
  const client = useQueryClient();
  const { data: rows = NOTHING } = useQuery({
    queryKey: ["signed-in"],
    queryFn: () => data(api.GET("/api/account/signed-in/")),
    staleTime: 0,
  });
  const end = async (id: number) => {
    try {
      await data(api.DELETE("/api/account/signed-in/{id}/", { params: { path: { id } } }));
      await client.invalidateQueries({ queryKey: ["signed-in"] });
    } catch (error) {
      notifyError(error);
    }
  };
  return (
    <AccountSection title={t("Signed in")} text={t("Browsers in which you are signed in now.")}>
      {rows.map((row) => (
        <Box key={row.id} sx={LINE}>
          <Box sx={{ width: 118, fontVariantNumeric: "tabular-nums", color: "text.secondary" }}>
            {momentOf(row.since)}
          </Box>
          <Box sx={CUT} title={row.browser}>
            {browserOf(row.browser)}
            {row.address && `, ${row.address}`}
          </Box>
          {row.here ? (
            <Box sx={{ fontSize: 12, color: "text.secondary", minHeight: 30, pt: 0.75 }}>{t("this one")}</Box>
          ) : (
            <Button
              aria-label={t("Sign out {since}", { since: momentOf(row.since) })}
              onClick={() => void end(row.id)}
            >
              {t("Sign out")}
            </Button>
          )}
        </Box>
      ))}
    </AccountSection>
  );
}

function Tokens() {
  const client = useQueryClient();
  const [name, setName] = useState("");
  const [scope, setScope] = useState<Scope>("read");
  const [made, setMade] = useState<string | null>(null);
  const { data: rows = NOTHING } = useQuery({
    queryKey: ["tokens"],
    queryFn: () => data(api.GET("/api/account/tokens/")),
    staleTime: 0,
  });
  const again = () => client.invalidateQueries({ queryKey: ["tokens"] });
  const make = useMutation({
    mutationFn: () => data(api.POST("/api/account/tokens/", { body: { name: name.trim(), scope } })),
    onSuccess: (row) => {
      setMade(row.token);
      setName("");
      void again();
    },
  });
  const revoke = async (id: number) => {
    try {
      await data(api.DELETE("/api/account/tokens/{id}/", { params: { path: { id } } }));
      await again();
    } catch (error) {
      notifyError(error);
    }
  };
  return (
    <AccountSection
      title={t("Tokens")}
      text={t("With a token a program comes in for you, without your password.")}
    >
      {rows.map((row) => (
        <Box key={row.id} sx={LINE}>
          <Box sx={CUT}>{row.name}</Box>
          <Box sx={{ color: "text.secondary", fontSize: 12 }}>
            {SCOPES.find(([key]) => key === row.scope)?.[1]},{" "}
            {row.last_used ? t("used {lastUsed}", { lastUsed: row.last_used }) : t("not used")}
          </Box>
          <Button aria-label={t("Revoke {name}", { name: row.name })} onClick={() => void revoke(row.id)}>
            {t("Revoke")}
          </Button>
        </Box>
      ))}
      <Box
        component="form"
        onSubmit={(event) => {
          event.preventDefault();
          make.mutate();
        }}
        sx={{ display: "flex", gap: 1, alignItems: "flex-end", mt: 1 }}
      >
        <TextField
          label={t("Name of a new token")}
          value={name}
          onChange={(event) => setName(event.target.value)}
          slotProps={{ htmlInput: { maxLength: 80 } }}
          fullWidth
        />
        <ChoiceField
          label={t("Scope")}
          width={190}
          value={scope}
          choices={SCOPES}
          onChoose={(to) => setScope(to as Scope)}
        />
        <Button type="submit" variant="outlined" disabled={!name.trim() || make.isPending}>
          {t("Make")}
        </Button>
      </Box>
      {make.error && (
        <Alert severity="error" sx={{ mt: 1 }}>
          {make.error.message}
        </Alert>
      )}
      {made && (
        <Box role="status" sx={{ mt: 1, p: 1, bgcolor: colours.sand, fontSize: 12.5 }}>
          {t("Copy it now; it is not shown again:")}
          <Box component="code" sx={{ display: "block", mt: 0.5, userSelect: "all", wordBreak: "break-all" }}>
            {made}
          </Box>
        </Box>
      )}
    </AccountSection>
  );
}
