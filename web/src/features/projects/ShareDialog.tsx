/** Who works in a project: people with an account by their names, others by a link. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import Select from "@mui/material/Select";
import TextField from "@mui/material/TextField";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, data, type Project } from "../../api/client";
import { GIVEN_ROLES, ROLE_NAMES } from "../../components/roleNames";
import { useMoments } from "../../components/moments";
import { TitledDialog } from "../../components/TitledDialog";
import { notify, notifyError } from "../../stores/notices";
import { colours } from "../../theme/theme";
import { t } from "../../words/words";

type Role = (typeof GIVEN_ROLES)[number][0];
const NOTHING: never[] = [];
const SMALL = { minHeight: 24, px: 0.75, minWidth: 0, fontSize: 12 };
const LINE = { display: "flex", alignItems: "center", gap: 1, fontSize: 13 };

export function ShareDialog({ project, onClose }: { project: Project; onClose: () => void }) {
  const client = useQueryClient();
  const [name, setName] = useState("");
  const [role, setRole] = useState<Role>("drafter");
  const at = { params: { path: { id: project.id } } };
  const share = async (way: "share" | "unshare", username: string, as: Role = "drafter") => {
    try {
      const body = { username, role: as };
      await data(
        way === "share"
          ? api.POST("/api/projects/{id}/share/", { ...at, body })
          : api.POST("/api/projects/{id}/unshare/", { ...at, body }),
      );
      setName("");
    } catch (error) {
      notifyError(error);
    }
    await client.invalidateQueries({ queryKey: ["projects"] });
  };
  return (
    <TitledDialog
      title={t("Share {name}", { name: project.name })}
      width="sm"
      text={t("Who works on this project sees the changes of the others as they happen.")}
      onClose={onClose}
      foot={<Button onClick={onClose}>{t("Done")}</Button>}
    >
      {project.members.map((username) => (
        <Box key={username} sx={LINE}>
          <Box sx={{ flex: 1, minWidth: 0 }}>{username}</Box>
          <RoleChoice
            label={t("Role of {username}", { username })}
            value={project.roles[username] ?? "drafter"}
            onChoose={(as) => void share("share", username, as)}
          />
          <Button
            aria-label={t("No longer share with {username}", { username })}
            onClick={() => void share("unshare", username)}
            sx={SMALL}
          >
            {t("Remove")}
          </Button>
        </Box>
      ))}
      <Box
        component="form"
        onSubmit={(event) => {
          event.preventDefault();
          if (name.trim()) void share("share", name.trim(), role);
        }}
        sx={{ display: "flex", gap: 1, pt: 0.75 }}
      >
        <TextField
          label={t("Sign-in name")}
          autoFocus
          fullWidth
          value={name}
          onChange={(event) => setName(event.target.value)}
        />
        <RoleChoice label={t("Role")} value={role} onChoose={setRole} />
        <Button type="submit" variant="contained" disabled={!name.trim()}>
          {t("Share")}
        </Button>
      </Box>
      <Invitations project={project} />
    </TitledDialog>
  );
}

interface RoleProps {
  label: string;
  value: string;
  onChoose: (role: Role) => void;
}

function RoleChoice({ label, value, onChoose }: RoleProps) {
  return (
    <Select
      size="small"
      value={value}
      inputProps={{ "aria-label": label }}
      renderValue={(role) => ROLE_NAMES[role]}
      MenuProps={{ transitionDuration: 0 }}
      onChange={(event) => onChoose(event.target.value as Role)}
      sx={{ width: 104, flexShrink: 0 }}
    >
      {GIVEN_ROLES.map(([role, words]) => (
        <MenuItem key={role} value={role} dense>
          {words}
        </MenuItem>
      ))}
    </Select>
  );
}

/** Links by which one person each comes in, with an account or without one. */
function Invitations({ project }: { project: Project }) {
  const { dayOf } = useMoments();
  const client = useQueryClient();
  const [link, setLink] = useState("");
  const [role, setRole] = useState<Role>("drafter");
  const at = { params: { path: { id: project.id } } };
  const { data: open = NOTHING } = useQuery({
    queryKey: ["invitations", project.id],
    queryFn: () => data(api.GET("/api/projects/{id}/invitations/", at)),
  });
  const tried = async (what: () => Promise<unknown>) => {
    try {
      await what();
    } catch (error) {
      notifyError(error);
    }
    await client.invalidateQueries({ queryKey: ["invitations", project.id] });
  };
  const invite = () =>
    tried(async () => {
      const { secret } = await data(api.POST("/api/projects/{id}/invite/", { ...at, body: { role } }));
      setLink(`${window.location.origin}/invited/${secret}`);
    });
  const withdraw = (id: string) =>
    tried(() => data(api.DELETE("/api/invitations/{id}/", { params: { path: { id } } })));
  const copy = () =>
    navigator.clipboard.writeText(link).then(
      () => notify(t("The link is copied.")),
      () => notify(t("The browser does not let it be copied. Select it and copy it by hand."), true),
    );
  return (
    <Box
      component="section"
      aria-label={t("Invitations")}
      sx={{ borderTop: `1px solid ${colours.sandDeep}`, pt: 1.25, mt: 0.5 }}
    >
      <Box sx={LINE}>
        <Box component="span" sx={{ flex: 1 }}>
          {t("Somebody without an account here comes in by a link.")}
        </Box>
        <RoleChoice label={t("Role of who is invited")} value={role} onChoose={setRole} />
        <Button variant="outlined" onClick={() => void invite()} sx={{ flexShrink: 0 }}>
          {t("Invite by a link")}
        </Button>
      </Box>
      {link && (
        <Box sx={{ display: "flex", gap: 1, mt: 1.5 }}>
          <TextField
            label={t("Link, good for one person and seven days; it is shown only now")}
            fullWidth
            value={link}
            onFocus={(event) => event.target.select()}
            slotProps={{ htmlInput: { readOnly: true } }}
          />
          <Button onClick={() => void copy()}>{t("Copy")}</Button>
        </Box>
      )}
      {open.map(({ id, until, made, role: as }) => (
        <Box key={id} sx={LINE}>
          <Box component="span" sx={{ color: "text.secondary", flex: 1 }}>
            {t("Invited as {as} on {made}, until {until}", { as, made: dayOf(made), until: dayOf(until) })}
          </Box>
          <Button onClick={() => void withdraw(id)} sx={SMALL}>
            {t("Withdraw")}
          </Button>
        </Box>
      ))}
    </Box>
  );
}
