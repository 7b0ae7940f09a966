/** A part of the page whose fault takes nothing else down: it says so, and is shown again on demand. */
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import type { ReactNode } from "react";
import { ErrorBoundary, type FallbackProps } from "react-error-boundary";
import { t } from "../words/words";

/**
 * @param of What it shows: a fault that was met with something else is no longer shown.
 */
export const Guarded = ({ of, children }: { of: string; children: ReactNode }) => (
  <ErrorBoundary FallbackComponent={Fault} resetKeys={[of]}>
    {children}
  </ErrorBoundary>
);

function Fault({ error, resetErrorBoundary }: FallbackProps) {
  return (
    <Box sx={{ flex: 1, display: "flex", alignItems: "center", justifyContent: "center", p: 2 }}>
      <Alert
        severity="error"
        sx={{ maxWidth: 560 }}
        action={
          <Button color="inherit" onClick={resetErrorBoundary}>
            {t("Show it again")}
          </Button>
        }
      >
        {t("Something went wrong on this page. What you have done is kept and goes on being saved.")}
        <Box sx={{ mt: 0.5, fontSize: 12 }}>{error instanceof Error ? error.message : String(error)}</Box>
      </Alert>
    </Box>
  );
}
