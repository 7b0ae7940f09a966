/** Sending a building file, with the share that has gone out. */
import { ApiError, csrfToken, type Job } from "../../api/client";
import { t } from "../../words/words";

// fetch does not tell how much of a body has been sent; XMLHttpRequest does.
export function upload(
  project: string,
  file: File,
  unit: string,
  progress: (share: number) => void,
): Promise<Job> {
  return new Promise((resolve, reject) => {
    const request = new XMLHttpRequest();
    request.open("POST", "/api/model-versions/");
    request.setRequestHeader("X-CSRFToken", csrfToken());
    request.responseType = "json";
    request.upload.onprogress = (event) => progress(event.lengthComputable ? event.loaded / event.total : 0);
    request.onload = () => {
      const body = request.response as (Job & { detail?: string }) | null;
      if (request.status === 202 && body) resolve(body);
      else reject(new ApiError(request.status, body?.detail ?? t("The file could not be sent.")));
    };
    request.onerror = () =>
      reject(new ApiError(0, t("The connection was lost while sending. Send the file again.")));
    const form = new FormData();
    form.append("project", project);
    form.append("file", file);
    form.append("unit", unit);
    request.send(form);
  });
}
