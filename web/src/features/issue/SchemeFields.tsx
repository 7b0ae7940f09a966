/** How revisions are counted in a project: one of the schemes in common use, or series of one's own. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import type { RevisionScheme } from "../../api/client";
import { useIssueChoices } from "../../api/issues";
import { useRegister } from "../../api/sheets";
import { ChoiceField } from "../../components/ChoiceField";
import { choicesOf } from "../../components/choices";
import { FigureField } from "../../components/FigureField";
import { commit } from "../../sync/commands";
import { changing } from "../../sync/rows";
import { t } from "../../words/words";

type Series = RevisionScheme["series"][number];

/** What is added where a scheme becomes one's own. */
const FURTHER: Series = { prefix: "T", counting: "figures", digits: 2, purposes: ["Tender"] };
const OWN = "own";
const COUNTING = choicesOf<Series["counting"]>({ figures: t("Figures"), letters: t("Letters") });

export function SchemeFields({ project }: { project: string }) {
  const { data: register } = useRegister(project);
  const { data: choices } = useIssueChoices();
  if (!register || !choices) return null;
  const own = register.revision_scheme.series;
  const { schemes } = choices;
  const known = schemes.find((s) => JSON.stringify(s.scheme.series) === JSON.stringify(own))?.name;
  const change = (to: readonly Series[]) =>
    void commit(project, t("how revisions are counted"), [
      changing("registers", register, { revision_scheme: { series: [...to] } }),
    ]).then(undefined);
  const set = (k: number, to: Partial<Series>) => change(own.map((s, n) => (n === k ? { ...s, ...to } : s)));
  return (
    <Box role="group" aria-label={t("How revisions are counted")} sx={{ mt: 1.5, pb: 0.5 }}>
      <ChoiceField
        label={t("Counted as")}
        width={150}
        value={known ?? OWN}
        choices={[...schemes.map((s) => [s.name, s.name] as const), [OWN, t("Own series")]]}
        onChoose={(key) => change(schemes.find((s) => s.name === key)?.scheme.series ?? [...own, FURTHER])}
      />
      {!known &&
        own.map((each, k) => (
          <Box key={k} sx={{ display: "flex", gap: 0.75, mt: 0.75, alignItems: "flex-end" }}>
            <FigureField
              label={t("Begins with")}
              width={84}
              value={each.prefix}
              onCommit={(prefix) => set(k, { prefix })}
            />
            <ChoiceField
              label={t("Goes on with")}
              width={104}
              value={each.counting}
              choices={COUNTING}
              onChoose={(counting) => set(k, { counting: counting as Series["counting"] })}
            />
            <FigureField
              label={t("Figures")}
              width={64}
              number
              value={String(each.digits)}
              onCommit={(digits) => set(k, { digits: Number(digits) })}
            />
            <FigureField
              label={t("For (none: all others)")}
              width="100%"
              value={each.purposes.join(", ")}
              onCommit={(words) =>
                set(k, {
                  purposes: words
                    .split(",")
                    .map((word) => word.trim())
                    .filter(Boolean),
                })
              }
            />
            <Button
              disabled={own.length === 1}
              onClick={() => change(own.filter((_, n) => n !== k))}
              sx={{ minWidth: 0, px: 1 }}
            >
              {t("Delete")}
            </Button>
          </Box>
        ))}
    </Box>
  );
}
