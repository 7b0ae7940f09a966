/** Sending a scan of a marked print; it lies under its sheet once it was read. */
import { csrfToken, errorOf } from "../../../api/client";
import { queryClient } from "../../../api/queryClient";
import { notify, notifyError } from "../../../stores/notices";
import { t } from "../../../words/words";

/** Ask for a file, and send it. */
export function sendScan(project: string, sheet: string) {
  const chooser = document.createElement("input");
  chooser.type = "file";
  chooser.accept = ".png,.jpg,.jpeg,.tif,.tiff,.pdf";
  chooser.onchange = () => {
    const [file] = chooser.files ?? [];
    if (file) void send(project, sheet, file);
  };
  chooser.click();
}

async function send(project: string, sheet: string, file: File) {
  const body = new FormData();
  body.set("sheet", sheet);
  body.set("file", file);
  try {
    const headers = { "X-CSRFToken": csrfToken() };
    const response = await fetch("/api/scan-files/", { method: "POST", body, headers });
    if (!response.ok) throw await errorOf(response);
    notify(t("“{name}” is being read, and then lies under the sheet.", { name: file.name }));
    void queryClient.invalidateQueries({ queryKey: ["jobs", project] });
  } catch (error) {
    notifyError(error);
  }
}
