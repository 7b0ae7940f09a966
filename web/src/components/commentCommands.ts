/** What people of the project do about a comment. */
import { api, data, type Comment, type CommentState } from "../api/client";
import { queryClient } from "../api/queryClient";
import { commit } from "../sync/commands";
import { afterWrites, changing } from "../sync/rows";
import { t } from "../words/words";

type Standing = Partial<Pick<Comment, "state" | "assigned" | "due" | "done_in">>;

export const changeComment = (comment: Comment, to: Standing, what: string) =>
  commit(comment.project, t("{what} of comment {number}", { what, number: comment.number }), [
    changing("comments", comment, to),
  ]);

/** Answer a comment; a blank state leaves that to the server. `pictured` shows its place before and now. */
export async function answerComment(
  comment: Comment,
  text: string,
  state: CommentState | "",
  pictured: boolean,
) {
  await afterWrites(() =>
    data(
      api.POST("/api/comments/{id}/answer/", {
        params: { path: { id: comment.id } },
        body: { text, state, pictured },
      }),
    ),
  );
  for (const key of ["comments", "checks"])
    await queryClient.invalidateQueries({ queryKey: [key, comment.project] });
}
