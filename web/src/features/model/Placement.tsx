/** Where the building stands: its axes in its file and on the grid, its ground, and changing them. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import { useState } from "react";
import { api, data, type ModelVersion } from "../../api/client";
import { isActive, useJobs } from "../../api/jobs";
import { queryClient } from "../../api/queryClient";
import type { paths } from "../../api/schema";
import { choicesOf } from "../../components/choices";
import { TitledDialog } from "../../components/TitledDialog";
import { ChoiceField } from "../../components/ChoiceField";
import { Panel } from "../../components/Panel";
import { notifyError } from "../../stores/notices";
import { degrees, metres, metresTyped, placeText, turnTyped } from "./placement";
import { t } from "../../words/words";

type Facts = ModelVersion["facts"];
type Up = Facts["given"]["up"];
type Place = NonNullable<
  paths["/api/model-versions/{id}/place/"]["post"]["requestBody"]
>["content"]["application/json"];

const AXES_UP = [
  ["", t("As its shape shows")],
  ...choicesOf<"y" | "z">({ y: t("y points up"), z: t("z points up") }),
] as const;

export function Placement({ version }: { version: ModelVersion }) {
  const { facts } = version;
  const [open, setOpen] = useState<"axes" | "ground" | null>(null);
  const { data: jobs = [] } = useJobs(version.project);
  const reading = jobs.some((job) => job.kind === "read" && isActive(job));
  const { axes, on_grid: grid, given } = facts;
  // Where the file has terrain of its own there is nothing to give.
  const canHaveGround = facts.has_ground === false || given.ground != null;
  return (
    <Panel name={t("Where it stands")}>
      <Box
        component="dl"
        sx={{
          m: 0,
          display: "grid",
          gridTemplateColumns: "auto 1fr",
          columnGap: 1.5,
          rowGap: 0.5,
          "& dt": { color: "text.secondary" },
          "& dd": { m: 0, textAlign: "right", whiteSpace: "pre-line", fontVariantNumeric: "tabular-nums" },
        }}
      >
        <dt>{t("Axes turned by")}</dt>
        <dd>{degrees(axes.turn)}</dd>
        <dt>{t("Zero in the file")}</dt>
        <dd>{placeText(axes.origin, ["x", "y", "z"])}</dd>
        {grid && (
          <>
            <dt>{t("Zero on the grid")}</dt>
            <dd>{placeText(grid.origin.slice(0, 2), ["E", "N"])}</dd>
            <dt>{t("Height on the grid")}</dt>
            <dd>{metres(grid.origin[2] ?? 0)}</dd>
            <dt>{t("Turned from grid east")}</dt>
            <dd>{degrees(grid.turn)}</dd>
          </>
        )}
        <dt>{t("True north")}</dt>
        <dd>
          {facts.true_north == null
            ? t("not given")
            : t("{trueNorth} clockwise of y", { trueNorth: degrees(facts.true_north) })}
        </dd>
        <dt>{t("Ground")}</dt>
        <dd>{groundText(facts)}</dd>
      </Box>
      <Box sx={{ display: "flex", flexWrap: "wrap", gap: 0.5, mt: 1 }}>
        <Button disabled={reading} onClick={() => setOpen("axes")}>
          {t("Change axes…")}
        </Button>
        {canHaveGround && (
          <Button disabled={reading} onClick={() => setOpen("ground")}>
            {t("Ground level…")}
          </Button>
        )}
      </Box>
      {open === "axes" && <AxesDialog version={version} onClose={() => setOpen(null)} />}
      {open === "ground" && <GroundDialog version={version} onClose={() => setOpen(null)} />}
    </Panel>
  );
}

const groundText = ({ given, has_ground }: Facts) =>
  given.ground != null
    ? t("level, at {height}", { height: metres(given.ground) })
    : has_ground === false
      ? t("not given")
      : t("as in the file");

/** Read the newest version's file once more, with other axes or another ground. */
async function placeAgain(version: ModelVersion, body: Place): Promise<boolean> {
  try {
    await data(api.POST("/api/model-versions/{id}/place/", { params: { path: { id: version.id } }, body }));
    await queryClient.invalidateQueries({ queryKey: ["jobs"] });
    return true;
  } catch (error) {
    notifyError(error);
    return false;
  }
}

function GroundDialog({ version, onClose }: { version: ModelVersion; onClose: () => void }) {
  const { axes, given } = version.facts;
  const [typed, setTyped] = useState(given.ground == null ? "" : String(given.ground / 1000));
  const level = typed.trim() === "" ? null : metresTyped(typed);
  const wrong = typed.trim() !== "" && level === null;
  const place = async () => {
    const body = { turn: axes.turn, up: given.up as Place["up"], origin: axes.origin, ground: level };
    if (await placeAgain(version, body)) onClose();
  };
  return (
    <TitledDialog
      title={t("Ground level")}
      text={t(
        "The file has no terrain. With a level of the ground there is a ground line in elevations, earth " +
          "in sections, and shadow on the ground; what lies below is hidden. The file is read again as a " +
          "new version.",
      )}
      width="xs"
      onClose={onClose}
      foot={
        <>
          <Box sx={{ flex: 1 }} />
          <Button onClick={onClose}>{t("Cancel")}</Button>
          <Button
            variant="contained"
            disabled={wrong || level === (given.ground ?? null)}
            onClick={() => void place()}
          >
            {t("Change")}
          </Button>
        </>
      }
    >
      <TextField
        label={t("Level of the ground (m), blank for none")}
        value={typed}
        autoFocus
        sx={{ mt: 0.75 }}
        error={wrong}
        helperText={wrong ? t("A figure such as −0.15") : " "}
        onChange={(event) => setTyped(event.target.value)}
      />
    </TitledDialog>
  );
}

function AxesDialog({ version, onClose }: { version: ModelVersion; onClose: () => void }) {
  const { facts } = version;
  const [typed, setTyped] = useState(String(facts.axes.turn));
  const [up, setUp] = useState<Up>(facts.given.up);
  const turn = turnTyped(typed);
  const [zero, setZero] = useState(facts.axes.origin.map((figure) => String(figure / 1000)));
  const origin = zero.map(metresTyped);
  const whole = origin.every((figure) => figure !== null) ? origin : null;
  const same =
    turn === facts.axes.turn &&
    up === facts.given.up &&
    whole?.every((figure, k) => figure === facts.axes.origin[k]);
  const mesh = !facts.schema.startsWith("IFC");
  const place = async (to: number | null) => {
    const body = { turn: to, up: up as Place["up"], origin: to === null ? null : whole };
    if (await placeAgain(version, body)) onClose();
  };
  return (
    <TitledDialog
      title={t("Change axes")}
      text={t(
        "Plans, sides and coordinates follow the building’s own axes. The file is read again as a " +
          "new version; sections and what is seen in plans stay in their place, elevations show the " +
          "new sides.",
      )}
      width="xs"
      onClose={onClose}
      foot={
        <>
          <Button onClick={() => void place(null)}>{t("Find from walls and placement")}</Button>
          <Box sx={{ flex: 1 }} />
          <Button onClick={onClose}>{t("Cancel")}</Button>
          <Button
            variant="contained"
            disabled={turn === null || !whole || same}
            onClick={() => void place(turn)}
          >
            {t("Change")}
          </Button>
        </>
      }
    >
      <TextField
        label={t("Turn from the file’s x axis (°, counter-clockwise)")}
        value={typed}
        autoFocus
        sx={{ mt: 0.75 }}
        error={turn === null}
        helperText={turn === null ? t("A figure from −360 to 360") : " "}
        onChange={(event) => setTyped(event.target.value)}
      />
      <Box sx={{ display: "flex", gap: 1 }}>
        {["x", "y", "z"].map((axis, k) => (
          <TextField
            key={axis}
            label={t("Zero in the file, {axis} (m)", { axis })}
            value={zero[k]}
            error={origin[k] === null}
            onChange={(event) => setZero(zero.map((old, n) => (n === k ? event.target.value : old)))}
          />
        ))}
      </Box>
      {mesh && (
        <ChoiceField
          label={t("Upward axis of the file")}
          width="100%"
          value={up}
          choices={AXES_UP}
          onChoose={setUp}
        />
      )}
    </TitledDialog>
  );
}
