/** What can be done to a sheet now and then: signing it, and the list of drawings on it. */
import type { Project, Sheet } from "../../api/client";
import { isoDay } from "../../components/moments";
import { may } from "../../sync/roles";
import { t } from "../../words/words";

/** Signing with one's name and the date, for those who check. */
export function signCommands(
  sheet: Sheet,
  project: Project | undefined,
  me: string,
  change: (values: Partial<Sheet>, what: string) => unknown,
): (readonly [string, () => void])[] {
  if (!project || !may(project, "sign")) return [];
  return [
    [
      t("Sign as checked"),
      () =>
        void change(
          { checker: me, checked_on: isoDay(new Date()) },
          t("sign {number} as checked", { number: sheet.number }),
        ),
    ],
    [
      t("Sign as approved"),
      () =>
        void change(
          { approver: me, approved_on: isoDay(new Date()) },
          t("sign {number} as approved", { number: sheet.number }),
        ),
    ],
  ];
}

type Listed = NonNullable<Sheet["drawing_list"]>;
/** The list of drawings has a column for each of so many issues, where it has any. */
const ISSUES = 6;

/** What can be done about the list of the set's drawings. */
export function listCommands(
  { drawing_list: list }: Sheet,
  upperLeft: Listed,
  change: (to: Listed | null, what: string) => unknown,
): (readonly [string, () => void])[] {
  if (!list)
    return [
      [
        t("Place the list of drawings"),
        () => void change(upperLeft, t("place the list of drawings")),
      ] as const,
    ];
  const issues = list.issues ? 0 : ISSUES;
  return [
    [
      issues ? t("Show issues in the list of drawings") : t("Hide issues in the list of drawings"),
      () => void change({ ...list, issues }, t("issues in the list of drawings")),
    ] as const,
    [t("Remove the list of drawings"), () => void change(null, t("remove the list of drawings"))] as const,
  ];
}
