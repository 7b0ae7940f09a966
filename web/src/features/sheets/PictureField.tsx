/** Which picture is shown: the office's logo, one of the project's, or another that is imported. */
import { useRef } from "react";
import { csrfToken, errorOf, type Picture } from "../../api/client";
import { queryClient } from "../../api/queryClient";
import { ChoiceField } from "../../components/ChoiceField";
import { notifyError } from "../../stores/notices";
import { t } from "../../words/words";

interface Props {
  project: string;
  pictures: readonly Picture[];
  label?: string;
  value: string;
  /** What the first choice is called, and what it stands for. */
  first?: readonly [value: string, name: string];
  width?: number | string;
  /** Whether only pictures made of pixels will do. */
  ofPixels?: boolean;
  onChoose: (picture: string) => void;
}

const ANOTHER = "another";

export function PictureField({
  project,
  pictures,
  label = t("Picture"),
  value,
  first = ["logo", t("The office's logo")],
  width = 168,
  ofPixels = false,
  onChoose,
}: Props) {
  const offered = pictures.filter((p) => !ofPixels || p.form !== "vector");
  const input = useRef<HTMLInputElement>(null);
  const importPicture = async (file: File | undefined) => {
    if (!file) return;
    const body = new FormData();
    body.set("project", project);
    body.set("file", file);
    try {
      const response = await fetch("/api/pictures/", {
        method: "POST",
        body,
        headers: { "X-CSRFToken": csrfToken() },
      });
      if (!response.ok) throw await errorOf(response);
      const made = (await response.json()) as Picture;
      await queryClient.invalidateQueries({ queryKey: ["pictures", project] });
      onChoose(made.id);
    } catch (error) {
      notifyError(error);
    }
  };
  return (
    <>
      <ChoiceField
        label={label}
        width={width}
        value={value}
        choices={[first, ...offered.map((p) => [p.id, p.name] as const), [ANOTHER, t("Import…")]]}
        onChoose={(chosen) => (chosen === ANOTHER ? input.current?.click() : onChoose(chosen))}
      />
      <input
        ref={input}
        type="file"
        hidden
        accept={ofPixels ? ".png,.jpg,.jpeg" : ".svg,.png,.jpg,.jpeg"}
        aria-label={t("Picture file")}
        onChange={(event) => {
          void importPicture(event.target.files?.[0]);
          event.target.value = "";
        }}
      />
    </>
  );
}
