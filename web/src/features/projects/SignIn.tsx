/** Signing in. */
import Alert from "@mui/material/Alert";
import Button from "@mui/material/Button";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, data } from "../../api/client";
import { Credentials, type Given } from "./Credentials";
import { EntryPage } from "../../components/EntryPage";
import { t } from "../../words/words";

export function SignIn() {
  const client = useQueryClient();
  const [given, setGiven] = useState<Given>({ username: "", password: "" });
  const enter = useMutation({
    mutationFn: () => data(api.POST("/api/session/", { body: given })),
    onSuccess: (session) => client.setQueryData(["session"], session),
  });
  return (
    <EntryPage
      text={t("Drawing sheets, true to scale, from one building model.")}
      onSubmit={() => enter.mutate()}
    >
      {enter.error && <Alert severity="error">{enter.error.message}</Alert>}
      <Credentials given={given} onChange={setGiven} />
      <Button type="submit" variant="contained" disabled={enter.isPending} sx={{ minHeight: 36 }}>
        {t("Sign in")}
      </Button>
    </EntryPage>
  );
}
