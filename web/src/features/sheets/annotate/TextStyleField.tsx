/** In which named text style of the project a table is lettered. */
import { ChoiceField } from "../../../components/ChoiceField";
import { useNamed } from "./pieceProps";

interface Props {
  project: string;
  named: string;
  onChoose: (named: string) => void;
}

export function TextStyleField({ project, named, onChoose }: Props) {
  const styles = useNamed(project, "text");
  return (
    <ChoiceField
      label="Text style"
      width={124}
      value={styles.some(([id]) => id === named) ? named : ""}
      choices={[["", "Standard"], ...styles]}
      onChoose={onChoose}
    />
  );
}
