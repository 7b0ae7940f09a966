/** The Views station: the wall of all views, one view large, and new ones drawn on those there are. */
import Box from "@mui/material/Box";
import { useCallback, useEffect, useState } from "react";
import { useNavigate, useParams } from "react-router-dom";
import type { Project, View } from "../../api/client";
import { useModelVersions } from "../../api/buildings";
import { useJobs } from "../../api/jobs";
import { useViews } from "../../api/views";
import { useWhereabouts } from "../../components/useWhereabouts";
import { colours } from "../../theme/theme";
import { DeleteView } from "./DeleteView";
import { DrawOn, type NewViewRequest } from "./DrawOn";
import { useViewEdits } from "../../sync/views";
import { OneView } from "./OneView";
import { ViewsOverview } from "./ViewsOverview";

const NOTHING: never[] = [];

export function ViewsStation({ project }: { project: Project }) {
  const { viewId } = useParams();
  const navigate = useNavigate();
  const id = project.id;
  const { data: views = NOTHING, isSuccess } = useViews(id);
  const { data: versions = NOTHING } = useModelVersions(id);
  const { data: jobs = NOTHING } = useJobs(id);
  const edits = useViewEdits(id);
  const [request, setRequest] = useState<NewViewRequest | null>(null);
  const [deleting, setDeleting] = useState<View | null>(null);
  const open = useCallback(
    (to?: string) => void navigate(`/projects/${id}/views${to ? `/${to}` : ""}`),
    [navigate, id],
  );
  const view = views.find((v) => v.id === viewId);
  useWhereabouts(id, "views", view?.id);

  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement;
      if (
        target.closest(
          "input, textarea, [role=dialog], [role=listbox], [role=menu], [role=combobox][aria-expanded=true]",
        )
      )
        return;
      if (event.key === "Escape" && request) setRequest(null);
      else if (event.key === "Escape" && view) open();
      else if (event.key === "Delete" && view) setDeleting(view);
      else return;
      event.preventDefault();
    };
    window.addEventListener("keydown", press);
    return () => window.removeEventListener("keydown", press);
  }, [open, view, request]);

  const remove = async (which: View) => {
    setDeleting(null);
    if (which.id === viewId) open();
    await edits.remove(which);
  };

  return (
    <Box sx={{ flex: 1, minHeight: 0, display: "flex", flexDirection: "column", bgcolor: colours.sand }}>
      {request ? (
        <DrawOn
          request={request}
          views={views}
          onCancel={() => setRequest(null)}
          onMake={async (spec, name) => {
            const made = await edits.make(spec, name);
            if (!made) return;
            setRequest(null);
            open(made);
          }}
        />
      ) : view ? (
        <OneView
          view={view}
          views={views}
          version={versions[0]}
          jobs={jobs}
          edits={edits}
          onOpen={open}
          onDelete={() => setDeleting(view)}
          onDetail={() => setRequest({ kind: "detail", on: view.id })}
        />
      ) : (
        isSuccess && (
          <ViewsOverview
            views={views}
            version={versions[0]}
            edits={edits}
            project={id}
            onOpen={open}
            onRequest={setRequest}
            onDelete={setDeleting}
          />
        )
      )}
      {deleting && (
        <DeleteView
          view={deleting}
          onCancel={() => setDeleting(null)}
          onDelete={() => void remove(deleting)}
        />
      )}
    </Box>
  );
}
