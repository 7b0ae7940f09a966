/** Before a review: the word that it asks for, or why nobody comes in. */
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import { useState, type ReactNode } from "react";
import type { LookedAt } from "../../api/client";
import { Wordmark } from "../../components/Wordmark";
import { colours } from "../../theme/theme";
import { useWord } from "./reviewed";

export function Door({ secret, review }: { secret: string; review: LookedAt }) {
  const enter = useWord(secret);
  const [word, setWord] = useState("");
  return (
    <Card onSubmit={() => enter.mutate(word)}>
      <Box sx={{ fontSize: 13.5 }}>
        {review.asked_by} asks for a review of <b>{review.name}</b>, {review.project}. Give the word that came
        with the link.
      </Box>
      {enter.error && <Alert severity="error">{enter.error.message}</Alert>}
      <TextField label="Word" value={word} autoFocus onChange={(event) => setWord(event.target.value)} />
      <Button
        type="submit"
        variant="contained"
        disabled={!word.trim() || enter.isPending}
        sx={{ minHeight: 40 }}
      >
        Look at the sheets
      </Button>
    </Card>
  );
}

export function Refused({ message }: { message: string }) {
  return (
    <Card>
      <Alert severity="info">{message}</Alert>
    </Card>
  );
}

function Card({ onSubmit, children }: { onSubmit?: () => void; children: ReactNode }) {
  return (
    <Box
      component="main"
      sx={{
        height: "100%",
        display: "flex",
        alignItems: "center",
        justifyContent: "center",
        bgcolor: colours.sand,
      }}
    >
      <Box
        component={onSubmit ? "form" : "div"}
        onSubmit={(event: React.FormEvent) => {
          event.preventDefault();
          onSubmit?.();
        }}
        sx={{
          width: 340,
          maxWidth: "calc(100% - 24px)",
          p: 3.5,
          display: "flex",
          flexDirection: "column",
          gap: 2,
          bgcolor: colours.sandPale,
          border: `1px solid ${colours.sandDeep}`,
        }}
      >
        <Box component="h1" sx={{ m: 0 }}>
          <Wordmark size={24} />
        </Box>
        {children}
      </Box>
    </Box>
  );
}
