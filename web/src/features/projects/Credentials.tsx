/** The name and the password with which somebody comes in. */
import TextField from "@mui/material/TextField";
import { t } from "../../words/words";

export interface Given {
  username: string;
  password: string;
}

interface Props {
  given: Given;
  /** Whether they are chosen here, for a new account. */
  fresh?: boolean;
  onChange: (given: Given) => void;
}

export function Credentials({ given, fresh, onChange }: Props) {
  return (
    <>
      <TextField
        label={t("Name")}
        autoFocus
        autoComplete="username"
        value={given.username}
        onChange={(event) => onChange({ ...given, username: event.target.value })}
        required
      />
      <TextField
        label={t("Password")}
        type="password"
        autoComplete={fresh ? "new-password" : "current-password"}
        helperText={fresh && t("12 characters or more")}
        value={given.password}
        onChange={(event) => onChange({ ...given, password: event.target.value })}
        required
      />
    </>
  );
}
