/** Behind the link of an invitation: into the project, with the account that one has or with a new one. */
import Alert from "@mui/material/Alert";
import Button from "@mui/material/Button";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate, useParams } from "react-router-dom";
import { api, data } from "../../api/client";
import { useSession } from "../../api/projects";
import { Credentials, type Given } from "./Credentials";
import { EntryPage } from "../../components/EntryPage";
import { t } from "../../words/words";

export function Invited() {
  const { secret = "" } = useParams();
  const client = useQueryClient();
  const navigate = useNavigate();
  const session = useSession();
  const [given, setGiven] = useState<Given>({ username: "", password: "" });
  const at = { params: { path: { secret } } };
  const invited = useQuery({
    queryKey: ["invited", secret],
    queryFn: () => data(api.GET("/api/invited/{secret}/", at)),
    retry: false,
    staleTime: Infinity,
  });
  const enter = useMutation({
    mutationFn: () => data(api.POST("/api/invited/{secret}/", { ...at, body: given })),
    onSuccess: async ({ project }) => {
      await client.invalidateQueries({ queryKey: ["session"] });
      await client.invalidateQueries({ queryKey: ["projects"] });
      void navigate(`/projects/${project}/sheets`);
    },
  });
  const me = session.data?.username;
  const leave = async () => {
    await data(api.DELETE("/api/session/"));
    await client.invalidateQueries({ queryKey: ["session"] });
  };
  if (invited.isPending || session.isPending) return null;
  if (invited.error)
    return (
      <EntryPage text={invited.error.message} onSubmit={() => void navigate("/")}>
        <Button type="submit" variant="contained">
          {t("Go to the projects")}
        </Button>
      </EntryPage>
    );
  const { project, by } = invited.data;
  return (
    <EntryPage
      text={t("{by} invites you to work on “{project}”.{which}", {
        by,
        project,
        which: me ? "" : t(" Choose a name and a password."),
      })}
      onSubmit={() => enter.mutate()}
    >
      {enter.error && <Alert severity="error">{enter.error.message}</Alert>}
      {!me && <Credentials fresh given={given} onChange={setGiven} />}
      <Button type="submit" variant="contained" disabled={enter.isPending} sx={{ minHeight: 36 }}>
        {me ? t("Join as {me}", { me }) : t("Join")}
      </Button>
      {me && <Button onClick={() => void leave()}>{t("I am not {me}", { me })}</Button>}
    </EntryPage>
  );
}
