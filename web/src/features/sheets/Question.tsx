/** A small question in a dialog: what it is about, what answers it, and a way out. */
import Button from "@mui/material/Button";
import type { ReactNode } from "react";
import { TitledDialog } from "../../components/TitledDialog";
import { t } from "../../words/words";

interface QuestionProps {
  title: string;
  text: string;
  onClose: () => void;
  /** The button that answers it, and whether it can be pressed yet. */
  answer?: { name: string; ready: boolean; onAnswer: () => void };
  children: ReactNode;
}

export function Question({ title, text, onClose, answer, children }: QuestionProps) {
  return (
    <TitledDialog
      title={title}
      text={text}
      width="xs"
      onClose={onClose}
      onSubmit={() => answer?.ready && answer.onAnswer()}
      foot={
        <>
          <Button onClick={onClose}>{t("Cancel")}</Button>
          {answer && (
            <Button type="submit" variant="contained" disabled={!answer.ready}>
              {answer.name}
            </Button>
          )}
        </>
      }
    >
      {children}
    </TitledDialog>
  );
}
