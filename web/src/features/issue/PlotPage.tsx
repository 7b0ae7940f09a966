/** Plotting: which sheets, with what, the exact pages, and the devices that they go to. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { lazy, Suspense, useEffect, useMemo, useState } from "react";
import { api, data } from "../../api/client";
import { useDeviceKinds, usePlot, useSheetLists } from "../../api/plots";
import { usePlotSettings } from "../../api/styles";
import { knownOf } from "../../sync/namedRows";
import { afterWrites } from "../../sync/rows";
import { consistent } from "../../api/writing";
import { colours } from "../../theme/theme";
import { Devices } from "./Devices";
import { PlotLedge, type Form } from "./PlotLedge";
import { ChosenSheets, type Choice } from "./ChosenSheets";
import { notify, notifyError } from "../../stores/notices";
import { t } from "../../words/words";

// Reading PDFs takes a large library; it is fetched when there is one to read.
const pages = () => import("./PlotResult");
const PlotResult = lazy(() => pages().then((m) => ({ default: m.PlotResult })));
const NOTHING: never[] = [];

export function PlotPage({ project, sheets, without, onChoose }: Choice) {
  const id = project.id;
  const { data: lists = NOTHING } = useSheetLists(id);
  const { data: devices = NOTHING } = useDeviceKinds();
  const { data: own = NOTHING } = usePlotSettings(id);
  const client = useQueryClient();
  const [key, setKey] = useState<string | null>(null);
  const [made, setMade] = useState<{ plot: string; of: string } | null>(null);

  const chosen = useMemo(() => sheets.filter((s) => !without.has(s.id)), [sheets, without]);
  const known = knownOf<"plot_settings">(own);
  const settings = known.find((s) => s.key === key) ?? null;
  const order = { project: id, sheets: chosen.map((s) => s.id), settings: settings?.key ?? null };
  /** What a file is made of: when that has changed, the file is not of it any more. */
  const of = JSON.stringify([order, settings?.spec, chosen.map((s) => [s.version, s.plot_settings])]);

  const { data: conflicts = NOTHING } = useQuery({
    queryKey: ["plot-conflicts", id, of],
    queryFn: () => consistent(() => data(api.POST("/api/plots/conflicts/", { body: order }))),
    enabled: chosen.length > 0,
    placeholderData: (last) => last,
  });

  const attempt = async (command: () => Promise<void>) => {
    try {
      await command();
    } catch (error) {
      notifyError(error);
    }
  };
  const make = (form: Form) =>
    attempt(async () => {
      const plot = await afterWrites(() => data(api.POST("/api/plots/", { body: { ...order, form } })));
      setMade({ plot: plot.id, of });
    });
  const send = () =>
    attempt(async () => {
      const sent = await afterWrites(() => data(api.POST("/api/prints/", { body: order })));
      for (const stale of ["prints", "devices", "jobs"]) void client.invalidateQueries({ queryKey: [stale] });
      notify(
        sent.length === 1
          ? t("{about} sent", { about: sent[0]?.about })
          : t("Sent to {count} devices", { count: sent.length }),
      );
    });
  const { data: plot } = usePlot(made?.plot ?? null);
  /** Whether something else would be sent than what is shown. */
  const stale = plot !== undefined && made?.of !== of;
  useEffect(() => void pages().catch(() => undefined), []);

  return (
    <Box sx={{ flex: 1, minHeight: 0, display: "flex", flexDirection: "column" }}>
      <Box sx={{ flex: 1, minHeight: 0, display: "flex" }}>
        <ChosenSheets
          name={t("Sheets to plot")}
          verb={t("Plot")}
          project={project}
          sheets={sheets}
          lists={lists}
          without={without}
          about={(sheet) =>
            `${sheet.paper}, ${(settings ?? known.find((s) => s.key === sheet.plot_settings))?.name ?? ""}`
          }
          conflicts={conflicts}
          onChoose={onChoose}
        />
        <Box
          sx={{
            flex: 1,
            minWidth: 0,
            display: "flex",
            flexDirection: "column",
            bgcolor: colours.sand,
            borderInline: `1px solid ${colours.sandDeep}`,
          }}
        >
          {plot ? (
            <Suspense>
              <PlotResult plot={plot} stale={stale} onAgain={() => void make("pdf")} />
            </Suspense>
          ) : (
            <Box
              sx={{
                flex: 1,
                display: "flex",
                flexDirection: "column",
                alignItems: "center",
                justifyContent: "center",
                gap: 1.5,
                color: "text.secondary",
                textAlign: "center",
                px: 4,
              }}
            >
              <Box>{t("Preview the exact pages before they leave the office.")}</Box>
              <Button
                variant="contained"
                disabled={!chosen.length || conflicts.length > 0}
                onClick={() => void make("pdf")}
              >
                {t("Preview {which}", {
                  which:
                    chosen.length === 1 ? chosen[0]?.number : t("{count} sheets", { count: chosen.length }),
                })}
              </Button>
            </Box>
          )}
        </Box>
        <Devices project={project} />
      </Box>
      <PlotLedge
        project={project}
        known={known}
        devices={devices}
        settings={settings}
        chosen={chosen}
        blocked={!chosen.length || conflicts.length > 0}
        stale={stale}
        onSettings={setKey}
        onMake={(form) => void make(form)}
        onSend={() => void send()}
      />
    </Box>
  );
}
