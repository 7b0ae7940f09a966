/** The Model station: bring a building file in, and see what was found in it. */
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import LinearProgress from "@mui/material/LinearProgress";
import { useQueryClient } from "@tanstack/react-query";
import { lazy, Suspense, useRef, useState, type DragEvent } from "react";
import { Link } from "react-router-dom";
import { api, data, type Job, type ModelVersion, type Project } from "../../api/client";
import { useModelVersions, useSizeQuestions } from "../../api/buildings";
import { isActive, useJobs } from "../../api/jobs";
import { ChoiceField } from "../../components/ChoiceField";
import { lengthOf, useLengths, type Lengths } from "../../components/lengths";
import { Panel } from "../../components/Panel";
import { useWhereabouts } from "../../components/useWhereabouts";
import { colours } from "../../theme/theme";
import { FirstSteps } from "./FirstSteps";
import { Placement } from "./Placement";
import { SizeQuestion } from "./SizeQuestion";
import { FILE_UNITS } from "./units";
import { upload } from "./upload";
import { Versions } from "./Versions";
import { WhatChanged } from "./WhatChanged";
import { t } from "../../words/words";
import { said } from "../../words/said";

// Showing 3D takes a large library; it is fetched when there is a building to show.
const Building3D = lazy(() => import("./Building3D").then((m) => ({ default: m.Building3D })));

/** Most files give their unit; some give it wrongly. A choice is for the one file imported with it. */
const UNITS = [["", t("As the file says")], ...FILE_UNITS] as const;

export function ModelStation({ project }: { project: Project }) {
  useWhereabouts(project.id, "model");
  const { data: versions = [], isSuccess } = useModelVersions(project.id);
  const { data: jobs = [] } = useJobs(project.id);
  const newest = versions[0];
  const lastRead = jobs.find((job) => job.kind === "read");
  return (
    <Box sx={{ flex: 1, overflowY: "auto", bgcolor: colours.sand, p: 2 }}>
      <Box
        sx={{
          maxWidth: 2200,
          mx: "auto",
          display: "grid",
          gridTemplateColumns: "300px 1fr",
          gap: 2,
          alignItems: "start",
        }}
      >
        <Box sx={{ display: "flex", flexDirection: "column", gap: 2.5 }}>
          <ImportPanel project={project} lastRead={lastRead} first={!newest} />
          <FirstSteps project={project.id} />
          {newest && <Placement version={newest} />}
          {versions.length > 0 && <Versions versions={versions} />}
          {newest?.changes && <WhatChanged changes={newest.changes} />}
        </Box>
        {newest ? (
          <Box sx={{ display: "flex", flexDirection: "column", gap: 2.5, minWidth: 0 }}>
            <Box sx={{ height: "min(66vh, 1000px)", display: "flex" }}>
              <Suspense>
                <Building3D key={newest.id} version={newest} before={versions[1]} />
              </Suspense>
            </Box>
            <Found version={newest} project={project} />
          </Box>
        ) : (
          isSuccess && (
            <Panel name={t("What was found")}>
              <Box sx={{ color: "text.secondary", py: 4, textAlign: "center" }}>
                {t(
                  "Nothing yet. Import the building as an IFC, glTF or OBJ file; its plans and " +
                    "elevations are then drawn by themselves.",
                )}
              </Box>
            </Panel>
          )
        )}
      </Box>
    </Box>
  );
}

function ImportPanel({
  project,
  lastRead,
  first,
}: {
  project: Project;
  lastRead: Job | undefined;
  first: boolean;
}) {
  const client = useQueryClient();
  const { data: questions = [] } = useSizeQuestions(project.id);
  const input = useRef<HTMLInputElement>(null);
  const [sent, setSent] = useState<number | null>(null);
  const [unit, setUnit] = useState("");
  const [problem, setProblem] = useState("");
  const [over, setOver] = useState(false);
  const underWay = lastRead && isActive(lastRead);

  const send = async (file: File | undefined) => {
    if (!file) return;
    setProblem("");
    setSent(0);
    try {
      await upload(project.id, file, unit, setSent);
      for (const key of ["jobs", "projects"]) await client.invalidateQueries({ queryKey: [key] });
    } catch (error) {
      setProblem(error instanceof Error ? error.message : String(error));
    }
    setSent(null);
  };
  const drop = (event: DragEvent) => {
    event.preventDefault();
    setOver(false);
    void send(event.dataTransfer.files[0]);
  };

  return (
    <Panel name={first ? t("Import the building") : t("Import a new version")}>
      <Box
        onDragOver={(event) => {
          event.preventDefault();
          setOver(true);
        }}
        onDragLeave={() => setOver(false)}
        onDrop={drop}
        sx={{
          border: `1.5px dashed ${over ? colours.rust : colours.sandShade}`,
          bgcolor: over ? colours.rustPale : colours.paper,
          borderRadius: 1,
          p: 2.5,
          textAlign: "center",
        }}
      >
        <Box sx={{ mb: 1.25 }}>{t("Drop an IFC, glTF or OBJ file here, also zipped, or")}</Box>
        <Button
          variant="contained"
          disabled={sent !== null || underWay}
          onClick={() => input.current?.click()}
        >
          {t("Choose a file")}
        </Button>
        <input
          ref={input}
          type="file"
          accept=".ifc,.ifczip,.glb,.gltf,.obj,.zip,.gz"
          hidden
          aria-label={t("Building file")}
          onChange={(event) => {
            void send(event.target.files?.[0]);
            event.target.value = "";
          }}
        />
      </Box>
      <Box sx={{ mt: 1.25 }}>
        <ChoiceField
          label={t("Unit of the file")}
          width="100%"
          value={unit}
          choices={UNITS}
          onChoose={setUnit}
        />
      </Box>
      {sent !== null && <Progress text={t("Sending the file")} share={sent} />}
      {underWay && (
        <>
          <Progress text={said(lastRead.stage) || t("Waiting for its turn")} share={lastRead.share} />
          <Button
            onClick={() =>
              void data(api.POST("/api/jobs/{id}/cancel/", { params: { path: { id: lastRead.id } } }))
            }
          >
            {t("Cancel")}
          </Button>
        </>
      )}
      {!underWay && questions.map((asked) => <SizeQuestion key={asked.job} asked={asked} />)}
      {problem && (
        <Alert severity="error" sx={{ mt: 1.5 }}>
          {problem}
        </Alert>
      )}
      {!problem && lastRead?.state === "failed" && (
        <Alert severity="error" sx={{ mt: 1.5 }}>
          {t("{message} The project is as it was.", { message: said(lastRead.message) })}
        </Alert>
      )}
      {lastRead?.state === "cancelled" && (
        <Box sx={{ mt: 1.5, color: "text.secondary" }}>
          {t("Reading {about} was cancelled.", { about: lastRead.about })}
        </Box>
      )}
    </Panel>
  );
}

function Progress({ text, share }: { text: string; share: number }) {
  return (
    <Box role="status" sx={{ mt: 1.5 }}>
      <Box sx={{ fontSize: 12.5, mb: 0.5, display: "flex", justifyContent: "space-between" }}>
        <span>{text}</span>
        <span>{Math.round(share * 100)} %</span>
      </Box>
      <LinearProgress variant="determinate" value={share * 100} />
    </Box>
  );
}

/** How many of the file's shapes are drawn: those, those left out and those that failed add up. */
function ofShapes({ elements, left_out, failed }: ModelVersion["facts"]) {
  const shapes = elements + Object.values(left_out).reduce((a, b) => a + b, 0) + (failed?.length ?? 0);
  return shapes === elements
    ? elements.toLocaleString()
    : t("{elements} of {shapes}", { elements: elements.toLocaleString(), shapes: shapes.toLocaleString() });
}

function Found({ version, project }: { version: ModelVersion; project: Project }) {
  const { facts } = version;
  const lengths = useLengths();
  const sizes = facts.size.map((x) => lengthOf(x, lengths));
  const unit = / m+$/.exec(sizes[0] ?? "")?.[0] ?? "";
  const size = `${sizes.map((s) => s.slice(0, s.length - unit.length)).join(" × ")}${unit}`;
  const left = Object.entries(facts.left_out);
  return (
    <Panel name={t("What was found")}>
      <Box sx={{ display: "grid", gridTemplateColumns: "repeat(4, auto)", gap: 2, mb: 2 }}>
        <Fact name={t("Elements drawn")} value={ofShapes(facts)} />
        <Fact name={t("Overall size")} value={size} />
        <Fact name={t("Unit of the file")} value={facts.unit} />
        <Fact name={t("Schema")} value={facts.schema} />
      </Box>
      {facts.warnings.map((warning) => (
        <Alert key={warning} severity="warning" sx={{ mb: 1 }}>
          {said(warning)}
        </Alert>
      ))}
      <Box sx={{ display: "grid", gridTemplateColumns: "repeat(3, 1fr)", gap: 3 }}>
        <Table
          name={t("Storeys")}
          rows={[...facts.storeys].reverse().map((s) => [s.name, levelText(s.elevation, lengths)])}
        />
        <Table
          name={t("Layers")}
          rows={Object.entries(facts.layers).map(([name, count]) => [name, String(count)])}
        />
        <Table
          name={t("Elements by class")}
          rows={Object.entries(facts.classes).map(([name, count]) => [name, String(count)])}
        />
      </Box>
      {facts.failed?.length ? (
        <Alert severity="error" sx={{ mt: 2 }}>
          {t(
            "Could not be read and is missing in every drawing: {failed}. Export it again as a plain solid.",
            { failed: facts.failed.join(", ") },
          )}
        </Alert>
      ) : null}
      {left.length > 0 && (
        <Box sx={{ mt: 2, fontSize: 12.5, color: "text.secondary" }}>
          {t("Not drawn, being no building fabric: {name}.", {
            name: left.map(([name, count]) => `${count} ${name}`).join(", "),
          })}
        </Box>
      )}
      <Box sx={{ mt: 2 }}>
        <Button variant="outlined" component={Link} to={`/projects/${project.id}/sheets`}>
          {t("Go to the sheets")}
        </Button>
      </Box>
    </Panel>
  );
}

/** A level as the trade writes it: +2.900 m, ±0.000 m. */
function levelText(elevation: number, lengths: Lengths) {
  const sign = Math.abs(elevation) < 0.5 ? "±" : elevation > 0 ? "+" : "−";
  return `${sign}${lengthOf(Math.abs(elevation), lengths, 3)}`;
}

function Fact({ name, value }: { name: string; value: string }) {
  return (
    <Box>
      <Box sx={{ fontSize: 11.5, color: "text.secondary" }}>{name}</Box>
      <Box sx={{ fontSize: 15, fontWeight: 600, fontVariantNumeric: "tabular-nums" }}>{value}</Box>
    </Box>
  );
}

function Table({ name, rows }: { name: string; rows: [string, string][] }) {
  return (
    <Box
      component="table"
      sx={{ borderCollapse: "collapse", width: "100%", fontSize: 13, alignSelf: "start" }}
    >
      <Box component="caption" sx={{ textAlign: "left", fontWeight: 600, pb: 0.5 }}>
        {name}
      </Box>
      <tbody>
        {rows.map(([label, value]) => (
          <Box component="tr" key={label} sx={{ borderTop: `1px solid ${colours.sand}` }}>
            <Box
              component="th"
              scope="row"
              sx={{ textAlign: "left", fontWeight: 400, py: 0.5, overflowWrap: "anywhere" }}
            >
              {label}
            </Box>
            <Box
              component="td"
              sx={{
                textAlign: "right",
                py: 0.5,
                pl: 1,
                fontVariantNumeric: "tabular-nums",
                whiteSpace: "nowrap",
              }}
            >
              {value}
            </Box>
          </Box>
        ))}
      </tbody>
    </Box>
  );
}
