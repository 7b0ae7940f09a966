/** What was said of a place, its pictures, and what was answered. */
import Box from "@mui/material/Box";
import type { ReactNode } from "react";
import type { Comment, MarkedElement } from "../api/client";
import { colours } from "../theme/theme";
import { CommentStateMark } from "./CommentStateMark";
import { useMoments } from "./moments";
import { t } from "../words/words";

export type Threaded = Pick<
  Comment,
  "id" | "number" | "author" | "text" | "state" | "done_in" | "made" | "answers" | "pictures" | "element"
>;

interface Props {
  comment: Threaded;
  pictureAddress: (picture: string) => string;
  children?: ReactNode;
}

const WORDS = { fontSize: 13.5, lineHeight: 1.45, whiteSpace: "pre-wrap", overflowWrap: "anywhere" } as const;

export function CommentThread({ comment, pictureAddress, children }: Props) {
  const { answers, pictures } = comment;
  return (
    <Box component="article" aria-label={t("Comment {number}", { number: comment.number })}>
      <Box sx={{ display: "flex", alignItems: "baseline", gap: 1, mb: 0.25 }}>
        <b>{comment.number}</b>
        <CommentStateMark state={comment.state} doneIn={comment.done_in} />
      </Box>
      <Written
        author={comment.author}
        made={comment.made}
        text={comment.text || t("A mark without words.")}
      />
      <Pictures of={null} pictures={pictures} address={pictureAddress} />
      {named(comment.element) && (
        <Box sx={{ fontSize: 12, color: "text.secondary", mt: 0.5 }}>
          {t("About {element}", { element: named(comment.element) })}
        </Box>
      )}
      {answers.map((answer) => (
        <Box
          key={answer.id}
          sx={{ mt: 1, pl: 1.25, borderLeft: `3px solid ${answer.own ? colours.sea : colours.sandDeep}` }}
        >
          <Written author={answer.author} made={answer.made} text={answer.text} />
          <Pictures of={answer.id} pictures={pictures} address={pictureAddress} />
        </Box>
      ))}
      {children}
    </Box>
  );
}

function Written({ author, made, text }: { author: string; made: string; text: string }) {
  const { momentOf } = useMoments();
  return (
    <>
      <Box sx={{ fontSize: 12, color: "text.secondary" }}>
        <Box component="span" sx={{ fontWeight: 650, color: "text.primary" }}>
          {author}
        </Box>{" "}
        <Box component="span" sx={{ whiteSpace: "nowrap" }}>
          {momentOf(made)}
        </Box>
      </Box>
      <Box sx={WORDS}>{text}</Box>
    </>
  );
}

interface PicturesProps {
  of: string | null;
  pictures: Threaded["pictures"];
  address: (picture: string) => string;
}

/** The pictures of a comment or an answer, side by side; each opens at its full size. */
function Pictures({ of, pictures, address }: PicturesProps) {
  const own = pictures.filter((picture) => (picture.answer ?? null) === of);
  if (!own.length) return null;
  return (
    <Box sx={{ display: "flex", flexWrap: "wrap", gap: 0.75, mt: 0.75 }}>
      {own.map((picture) => (
        <Box component="figure" key={picture.id} sx={{ m: 0, flex: "1 1 110px", maxWidth: 260 }}>
          <a href={address(picture.id)} target="_blank" rel="noreferrer">
            <img
              src={address(picture.id)}
              alt={picture.caption || t("A picture with this comment")}
              style={{ width: "100%", display: "block", border: `1px solid ${colours.sandDeep}` }}
            />
          </a>
          {picture.caption && (
            <Box component="figcaption" sx={{ fontSize: 11.5, color: "text.secondary" }}>
              {picture.caption}
            </Box>
          )}
        </Box>
      ))}
    </Box>
  );
}

/** An element of the building, by its class and name. */
function named({ name, ifc_class: kind }: MarkedElement): string {
  const plain = (kind ?? "")
    .replace(/^Ifc/, "")
    .replace(/(?<=[a-z])([A-Z])/g, " $1")
    .toLowerCase();
  return name && plain ? `${name} (${plain})` : (name ?? plain);
}
