/** The button that brings a drawing from others in: a DXF, an SVG or a PDF becomes a view of its own. */
import Button from "@mui/material/Button";
import Tooltip from "@mui/material/Tooltip";
import { useRef } from "react";
import type { ReceivedFile } from "../../api/client";
import { useReceive } from "./useReceive";
import { t } from "../../words/words";

interface Props {
  project: string;
  name: string;
  tip: string;
  onReady: (file: ReceivedFile) => void;
}

export function ReceiveDrawing({ project, name, tip, onReady }: Props) {
  const input = useRef<HTMLInputElement>(null);
  const { send, busy } = useReceive(project, onReady);
  return (
    <>
      <Tooltip title={tip}>
        <span>
          <Button variant="outlined" disabled={busy} onClick={() => input.current?.click()}>
            {busy ? t("Reading…") : name}
          </Button>
        </span>
      </Tooltip>
      <input
        ref={input}
        type="file"
        hidden
        aria-label={t("File of a drawing from others")}
        accept=".dxf,.svg,.pdf"
        onChange={(event) => {
          const file = event.target.files?.[0];
          event.target.value = "";
          if (file) void send(file);
        }}
      />
    </>
  );
}
