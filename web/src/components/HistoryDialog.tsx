/** What was done to a sheet or a view, by whom and when; and the way back to what it was. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { api, data } from "../api/client";
import { notify, notifyError } from "../stores/notices";
import { commit } from "../sync/commands";
import { afterWrites, type Step } from "../sync/rows";
import { colours } from "../theme/theme";
import { useMoments } from "./moments";
import { TitledDialog } from "./TitledDialog";
import { t } from "../words/words";

interface Props {
  project: string;
  /** The sheet or view, and what it is called. */
  subject: string;
  name: string;
  onClose: () => void;
}

export function HistoryDialog({ project, subject, name, onClose }: Props) {
  const { momentOf } = useMoments();
  const client = useQueryClient();
  const { data: entries } = useQuery({
    queryKey: ["history", subject],
    queryFn: () => afterWrites(() => data(api.GET("/api/history/", { params: { query: { subject } } }))),
    staleTime: 0,
  });
  const back = async (entry: number, when: string) => {
    try {
      const steps = await data(
        api.GET("/api/history/{entry}/back/", { params: { path: { entry }, query: { subject } } }),
      );
      if (
        await commit(project, t("go back to {name} of {when}", { name, when }), steps as unknown as Step[])
      ) {
        notify(t("{name} is as it was on {when}", { name, when }));
        void client.invalidateQueries({ queryKey: ["history", subject] });
        void client.invalidateQueries({ queryKey: ["display"] });
      }
    } catch (error) {
      notifyError(error);
    }
  };
  return (
    <TitledDialog
      title={t("History of {name}", { name })}
      onClose={onClose}
      foot={
        <Button variant="contained" onClick={onClose}>
          {t("Close")}
        </Button>
      }
    >
      {entries && !entries.length && (
        <Box sx={{ fontSize: 13, color: "text.secondary" }}>{t("Nothing was changed here yet.")}</Box>
      )}
      <Box component="ol" sx={{ m: 0, p: 0, listStyle: "none", overflowY: "auto", maxHeight: 440 }}>
        {entries?.map((entry, k) => {
          const when = momentOf(entry.at);
          return (
            <Box
              component="li"
              key={entry.id}
              sx={{
                display: "flex",
                alignItems: "center",
                gap: 1.25,
                py: 0.35,
                fontSize: 13,
                borderBottom: `1px solid ${colours.sandDeep}`,
              }}
            >
              <Box sx={{ width: 118, fontVariantNumeric: "tabular-nums", color: "text.secondary" }}>
                {when}
              </Box>
              <Box sx={{ width: 70, overflow: "hidden", textOverflow: "ellipsis" }}>{entry.by}</Box>
              <Box sx={{ flex: 1, minWidth: 0 }}>
                {(entry.what[0] ?? "").toUpperCase() + entry.what.slice(1)}
              </Box>
              {k > 0 ? (
                <Button
                  variant="outlined"
                  aria-label={t("Go back to {when}: {what}", { when, what: entry.what })}
                  onClick={() => void back(entry.id, when)}
                >
                  {t("Go back to this")}
                </Button>
              ) : (
                <Box sx={{ fontSize: 12, color: "text.secondary", minHeight: 30, pt: 0.75 }}>
                  {t("as it is now")}
                </Box>
              )}
            </Box>
          );
        })}
      </Box>
    </TitledDialog>
  );
}
