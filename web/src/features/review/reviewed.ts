/** What is behind the link of a review, and what is said there; no account is needed. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import {
  api,
  ApiError,
  csrfToken,
  data,
  errorOf,
  type LookedAt,
  type Mark,
  type Said,
} from "../../api/client";
import { t } from "../../words/words";

/** Others comment too: so it is looked again so often; milliseconds. */
const AGAIN = 8_000;

const at = (secret: string) => ({ params: { path: { secret } } });

export const useReviewed = (secret: string) =>
  useQuery({
    queryKey: ["reviewed", secret],
    queryFn: () => data(api.GET("/api/reviewed/{secret}/", at(secret))) as Promise<LookedAt>,
    retry: (count, error) => count < 3 && !(error instanceof ApiError && error.status >= 400),
    staleTime: Infinity,
  });

export const useComments = (secret: string, enabled: boolean) =>
  useQuery({
    queryKey: ["said", secret],
    queryFn: () =>
      data(api.GET("/api/reviewed/{secret}/comments/", at(secret))) as unknown as Promise<Said[]>,
    enabled,
    refetchInterval: AGAIN,
  });

export const tileAddress = (secret: string, sheet: string, level: number, row: number, column: number) =>
  `/api/reviewed/${secret}/tiles/${sheet}/${level}/${row}/${column}/`;
export const pictureAddress = (secret: string, picture: string) =>
  `/api/reviewed/${secret}/pictures/${picture}/`;
export const pdfAddress = (secret: string) => `/api/reviewed/${secret}/pdf/`;

export function useWord(secret: string) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (word: string) =>
      data(api.POST("/api/reviewed/{secret}/", { ...at(secret), body: { word } })),
    onSuccess: () => client.invalidateQueries({ queryKey: ["reviewed", secret] }),
  });
}

/** What is about to be said. */
export interface Draft {
  sheet: string;
  marks: Mark[];
  text: string;
  author: string;
}

/** Say something of a sheet, with a picture where there is one. */
export function usePostComment(secret: string) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: async ({ draft, picture }: { draft: Draft; picture: File | null }) => {
      const said = await data(api.POST("/api/reviewed/{secret}/comments/", { ...at(secret), body: draft }));
      if (picture) await sendPicture(secret, said.id, picture);
      return said;
    },
    onSettled: () => client.invalidateQueries({ queryKey: ["said", secret] }),
  });
}

async function sendPicture(secret: string, comment: string, picture: File) {
  const body = new FormData();
  body.append("file", picture);
  const response = await fetch(`/api/reviewed/${secret}/comments/${comment}/pictures/`, {
    method: "POST",
    body,
    headers: { "X-CSRFToken": csrfToken() },
  });
  if (!response.ok)
    throw new PictureError(
      t("Your comment was sent, but its picture was not. {message}", {
        message: (await errorOf(response)).message,
      }),
    );
}

/** The comment is there; only its picture is not. */
export class PictureError extends Error {}

export function useAnswer(secret: string) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: ({ comment, text, author }: { comment: string; text: string; author: string }) =>
      data(
        api.POST("/api/reviewed/{secret}/comments/{comment}/answers/", {
          params: { path: { secret, comment } },
          body: { text, author },
        }),
      ),
    onSettled: () => client.invalidateQueries({ queryKey: ["said", secret] }),
  });
}

const NAME = "review-name";
const draftKey = (secret: string) => `review-draft-${secret}`;

/** The name that somebody gave in this browser. */
export const rememberedName = () => localStorage.getItem(NAME) ?? "";
export const rememberName = (name: string) => localStorage.setItem(NAME, name);

/** What was being written when the page was left; nothing where that cannot be read. */
export function keptDraft(secret: string): Draft | null {
  try {
    const kept = JSON.parse(localStorage.getItem(draftKey(secret)) ?? "null") as Draft | null;
    return kept && Array.isArray(kept.marks) && typeof kept.text === "string" ? kept : null;
  } catch {
    return null;
  }
}

export function keepDraft(secret: string, draft: Draft | null) {
  if (draft && (draft.text.trim() || draft.marks.length))
    localStorage.setItem(draftKey(secret), JSON.stringify(draft));
  else localStorage.removeItem(draftKey(secret));
}
