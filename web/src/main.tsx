import "@fontsource-variable/hanken-grotesk";
import "./theme/fonts.css";
import CssBaseline from "@mui/material/CssBaseline";
import { ThemeProvider } from "@mui/material/styles";
import { QueryClientProvider } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { BrowserRouter } from "react-router-dom";
import { askAhead } from "./ahead";
import { queryClient } from "./api/queryClient";
import { Guarded } from "./components/Guarded";
import { usePreferences } from "./stores/preferences";
import { theme } from "./theme/theme";
import { listen } from "./words/said";
import { speak } from "./words/words";

const root = document.getElementById("root");
askAhead(location.pathname);
// Whatever has words is loaded when it is known in which language they are.
await speak(usePreferences.getState().language);
await listen();
const { pagesFrom } = await import("./App");
const pages = await pagesFrom(location.pathname);
if (root)
  createRoot(root).render(
    <StrictMode>
      <ThemeProvider theme={theme}>
        <CssBaseline />
        <QueryClientProvider client={queryClient}>
          {/* What is clicked to be opened is there for the very next key: nothing waits for idle time. */}
          <BrowserRouter useTransitions={false}>
            <Guarded of={location.pathname}>{pages}</Guarded>
          </BrowserRouter>
        </QueryClientProvider>
      </ThemeProvider>
    </StrictMode>,
  );
