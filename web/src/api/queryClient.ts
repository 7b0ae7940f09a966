/** What the server knows, cached here; the server owns it. */
import { QueryClient } from "@tanstack/react-query";
import { ApiError } from "./client";

export const queryClient = new QueryClient({
  defaultOptions: {
    queries: {
      staleTime: 5_000,
      retry: (count, error) => count < 2 && (!(error instanceof ApiError) || error.status === 0),
    },
  },
});

/** The parameters of a list that is of one project. */
export const ofProject = (project: string) => ({ params: { query: { project } } });
