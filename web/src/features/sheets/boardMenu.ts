/** What can be done to what is under the pointer: on the board, and in the register. */
import type { Annotation, Sheet, Viewport } from "../../api/client";
import type { CommandGroups } from "../../components/CommandItems";
import { useBoard } from "../../stores/board";
import { useClipboard } from "../../stores/clipboard";
import { useGesture } from "../../stores/gesture";
import { select } from "../../stores/selection";
import type { KeyCommands } from "./keys";
import type { Edits } from "./sheetCommands";
import { t } from "../../words/words";

interface Given {
  commands: KeyCommands;
  viewports: readonly Viewport[];
  pieces: readonly Annotation[];
  /** Ask on which other sheets a copy is to stand. */
  onToSheets: (what: "sheets" | "pieces") => void;
}

/** Of what is selected on the board; of the board itself where nothing is. */
export function boardGroups({ commands, viewports, pieces, onToSheets }: Given): CommandGroups {
  const [viewport] = viewports;
  const [piece] = pieces;
  if (!viewport && !piece) return emptyGroups(commands);
  const copied = piece ? "pieces" : "sheets";
  return [
    viewport && viewports.length === 1 && !pieces.length
      ? [
          [t("Move contents"), () => select(viewport.id, true), "Enter"],
          ...(viewport.linework
            ? [[t("Touch up"), () => commands.touchUps?.begin([viewport.id]), "E"] as const]
            : []),
        ]
      : [],
    [
      [t("Copy"), commands.copy, "Ctrl + C"],
      ...(viewport && !piece ? [[t("Duplicate"), commands.duplicate, "Ctrl + D"] as const] : []),
      [t("Copy to sheets…"), () => onToSheets(copied)],
    ],
    [
      [t("To the front"), () => commands.stack(true), "Home"],
      [t("To the back"), () => commands.stack(false), "End"],
      ...(viewport && !piece
        ? [[viewports.every((v) => v.pinned) ? t("Unpin") : t("Pin"), commands.pin, "I"] as const]
        : []),
      ...(pieces.length > 1
        ? [
            pieces.every((p) => p.group && p.group === piece?.group)
              ? ([t("Ungroup"), () => commands.group?.(false), "Ctrl + Shift + G"] as const)
              : ([t("Group"), () => commands.group?.(true), "Ctrl + G"] as const),
          ]
        : []),
      ...(viewport ? [[t("Fill the board with it"), () => commands.fit(true), "1"] as const] : []),
    ],
    [["Delete", commands.remove, "Delete"]],
  ];
}

function emptyGroups(commands: KeyCommands): CommandGroups {
  const { viewports, pieces } = useClipboard.getState();
  return [
    viewports.length || pieces.length ? [[t("Paste"), commands.paste, "Ctrl + V"]] : [],
    [
      [t("Show the views"), () => useBoard.setState({ rackOpen: true }), "V"],
      [t("Draw an outline for a view"), () => useGesture.setState({ outline: { of: null, points: [] } })],
      [t("Select all viewports"), commands.chooseAll, "Ctrl + A"],
    ],
    [
      [t("Whole sheet"), () => commands.fit(false), "0"],
      [
        t("Working colours or as plotted"),
        () => useBoard.setState((s) => ({ workingColours: !s.workingColours })),
        "W",
      ],
      [t("Plot sheet"), commands.plot, "P"],
    ],
    [[t("Shortcuts"), commands.help, "?"]],
  ];
}

/** Of a sheet in the register. */
export function sheetGroups(
  sheet: Sheet,
  sheets: readonly Sheet[],
  edits: Edits,
  onOpen: (id: string) => void,
  onPlot: (id: string) => void,
): CommandGroups {
  const at = sheets.findIndex((s) => s.id === sheet.id);
  const shift = (to: number) => () => void edits.moveSheet(sheet, to);
  return [
    [
      [t("Open"), () => onOpen(sheet.id)],
      [t("Plot sheet"), () => onPlot(sheet.id)],
    ],
    [
      [t("Duplicate with its viewports"), () => onOpen(edits.duplicateSheet(sheet, true))],
      [t("Duplicate without viewports"), () => onOpen(edits.duplicateSheet(sheet, false))],
      [t("Renumber from here on"), () => void edits.renumberFrom(sheet)],
    ],
    [
      ...(at > 0 ? [[t("Move up"), shift(at - 1), "Alt + ↑"] as const] : []),
      ...(at < sheets.length - 1 ? [[t("Move down"), shift(at + 1), "Alt + ↓"] as const] : []),
    ],
    [[t("Delete sheet"), () => void edits.deleteSheet(sheet)]],
  ];
}
