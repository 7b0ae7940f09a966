/** Signing in. */
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, data } from "../../api/client";
import { Wordmark } from "../../components/Wordmark";
import { colours } from "../../theme/theme";

export function SignIn() {
  const client = useQueryClient();
  const [username, setUsername] = useState("");
  const [password, setPassword] = useState("");
  const enter = useMutation({
    mutationFn: () => data(api.POST("/api/session/", { body: { username, password } })),
    onSuccess: (session) => client.setQueryData(["session"], session),
  });
  return (
    <Box
      sx={{
        height: "100%",
        display: "flex",
        alignItems: "center",
        justifyContent: "center",
        bgcolor: colours.sand,
      }}
    >
      <Box
        component="form"
        onSubmit={(event) => {
          event.preventDefault();
          enter.mutate();
        }}
        sx={{
          width: 332,
          p: 4,
          display: "flex",
          flexDirection: "column",
          gap: 2,
          bgcolor: colours.sandPale,
          border: `1px solid ${colours.sandDeep}`,
          boxShadow: "0 3px 14px rgba(74, 60, 34, 0.18)",
        }}
      >
        <Wordmark size={26} />
        <Box sx={{ fontSize: 13, color: "text.secondary", mb: 0.5 }}>
          Drawing sheets, true to scale, from one building model.
        </Box>
        {enter.error && <Alert severity="error">{enter.error.message}</Alert>}
        <TextField
          label="Name"
          autoFocus
          autoComplete="username"
          value={username}
          onChange={(e) => setUsername(e.target.value)}
          required
        />
        <TextField
          label="Password"
          type="password"
          autoComplete="current-password"
          value={password}
          onChange={(e) => setPassword(e.target.value)}
          required
        />
        <Button type="submit" variant="contained" disabled={enter.isPending} sx={{ minHeight: 36 }}>
          Sign in
        </Button>
      </Box>
    </Box>
  );
}
