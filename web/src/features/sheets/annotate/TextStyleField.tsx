/** In which named text style of the project a table is lettered. */
import { ChoiceField } from "../../../components/ChoiceField";
import { useNamed } from "./pieceProps";
import { t } from "../../../words/words";

interface Props {
  project: string;
  named: string;
  onChoose: (named: string) => void;
}

export function TextStyleField({ project, named, onChoose }: Props) {
  const styles = useNamed(project, "text");
  return (
    <ChoiceField
      label={t("Text style")}
      width={124}
      value={styles.some(([id]) => id === named) ? named : ""}
      choices={[["", t("Standard")], ...styles]}
      onChoose={onChoose}
    />
  );
}
