/** The devices, with their paper and their queues, and the outbox: what came out of them. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { api, data, type Device, type Print, type Project } from "../../api/client";
import { useDevices, usePrints } from "../../api/plots";
import { useSession } from "../../api/projects";
import { colours } from "../../theme/theme";
import { useMoments } from "../../components/moments";
import { notifyError } from "../../stores/notices";
import { t } from "../../words/words";

const NOTHING: never[] = [];
const STATES: Record<Print["state"], string> = {
  making: t("being plotted"),
  queued: t("waiting"),
  printed: t("printed"),
  cancelled: t("cancelled"),
  failed: t("failed"),
};

export function Devices({ project }: { project: Project }) {
  const { data: devices = NOTHING } = useDevices();
  const { data: prints = NOTHING } = usePrints(project.id);
  const administers = useSession().data?.administers ?? false;
  const client = useQueryClient();
  const { mutate: act } = useMutation({
    mutationFn: (command: () => Promise<unknown>) => command(),
    // What is done to devices arrives in the order in which it was done.
    scope: { id: "devices" },
    // Without a connection it fails at once, and says so.
    networkMode: "always",
    onError: notifyError,
    onSettled: () => {
      for (const stale of ["devices", "prints"]) void client.invalidateQueries({ queryKey: [stale] });
    },
  });
  return (
    <Box
      component="aside"
      aria-label={t("Devices")}
      sx={{
        width: 262,
        flexShrink: 0,
        display: "flex",
        flexDirection: "column",
        bgcolor: "background.default",
        overflowY: "auto",
      }}
    >
      <Box component="h2" sx={{ m: 0, px: 1.5, pt: 1.25, pb: 0.5, fontSize: 13, fontWeight: 650 }}>
        {t("Devices")}
      </Box>
      {devices.map((device) => (
        <OneDevice
          key={device.key}
          device={device}
          administers={administers}
          onChange={(change) =>
            act(() =>
              data(api.POST("/api/devices/{key}/", { params: { path: { key: device.key } }, body: change })),
            )
          }
        />
      ))}
      <Box
        component="h2"
        sx={{
          m: 0,
          px: 1.5,
          pt: 1.5,
          pb: 0.5,
          fontSize: 13,
          fontWeight: 650,
          borderTop: `1px solid ${colours.sandDeep}`,
        }}
      >
        {t("Outbox")}
      </Box>
      {!prints.length && (
        <Box sx={{ px: 1.5, fontSize: 12.5, lineHeight: 1.4, color: "text.secondary" }}>
          {t("Nothing was sent to a device yet. What comes out of one is kept here, as it looks on paper.")}
        </Box>
      )}
      {prints.map((sent) => (
        <Sent
          key={sent.id}
          sent={sent}
          device={devices.find((d) => d.key === sent.device)?.name ?? sent.device}
          onCancel={() =>
            act(() => data(api.POST("/api/prints/{id}/cancel/", { params: { path: { id: sent.id } } })))
          }
        />
      ))}
    </Box>
  );
}

const paperOf = ({ paper }: Device) =>
  Object.entries(paper)
    .map(([medium, amount]) =>
      medium === "roll"
        ? t("{amount} m of roll", { amount: (amount / 1000).toFixed(1) })
        : `${amount} × ${medium}`,
    )
    .join(", ");

function OneDevice({
  device,
  administers,
  onChange,
}: {
  device: Device;
  /** Whether one may keep it from others: it serves all projects. */
  administers: boolean;
  onChange: (change: { online?: boolean; loaded?: boolean }) => void;
}) {
  const empty = Object.values(device.paper).every((amount) => amount === 0);
  const state = !device.online
    ? "off"
    : empty
      ? t("out of paper")
      : device.waiting
        ? t("{waiting} waiting", { waiting: device.waiting })
        : "ready";
  const small = { minWidth: 0, px: 0.75, minHeight: 26, fontSize: 12 };
  return (
    <Box
      role="group"
      aria-label={device.name}
      sx={{
        mx: 1,
        mb: 1,
        p: 1,
        border: `1px solid ${colours.sandDeep}`,
        borderRadius: 1,
        bgcolor: "background.paper",
      }}
    >
      <Box sx={{ display: "flex", justifyContent: "space-between", alignItems: "baseline", gap: 1 }}>
        <Box sx={{ fontSize: 12.5, fontWeight: 650 }}>{device.name}</Box>
        <Box
          role="status"
          sx={{ fontSize: 12, fontWeight: 600, color: device.online && !empty ? colours.sea : colours.rust }}
        >
          {state}
        </Box>
      </Box>
      <Box sx={{ fontSize: 12, color: "text.secondary" }}>{paperOf(device)}</Box>
      <Box sx={{ display: "flex", gap: 0.5, mt: 0.5, ml: -0.75 }}>
        {(administers || !device.online) && (
          <Button sx={small} onClick={() => onChange({ online: !device.online })}>
            {device.online ? t("Switch off") : t("Switch on")}
          </Button>
        )}
        <Button sx={small} onClick={() => onChange({ loaded: true })}>
          {t("Load paper")}
        </Button>
        {administers && !empty && (
          <Button sx={small} onClick={() => onChange({ loaded: false })}>
            {t("Remove paper")}
          </Button>
        )}
      </Box>
    </Box>
  );
}

function Sent({ sent, device, onCancel }: { sent: Print; device: string; onCancel: () => void }) {
  const { momentOf } = useMoments();
  const waits = sent.state === "making" || sent.state === "queued";
  const when = momentOf(sent.finished ?? sent.created);
  return (
    <Box
      role="group"
      aria-label={t("Print of {about}", { about: sent.about })}
      sx={{ px: 1.5, py: 0.75, borderTop: `1px solid ${colours.sandDeep}66` }}
    >
      <Box sx={{ display: "flex", justifyContent: "space-between", gap: 1, fontSize: 12.5 }}>
        <Box sx={{ fontWeight: 600 }}>{sent.about}</Box>
        <Box
          role="status"
          sx={{
            fontWeight: 600,
            color:
              sent.state === "printed"
                ? colours.sea
                : sent.state === "cancelled"
                  ? "text.secondary"
                  : colours.rust,
          }}
        >
          {STATES[sent.state]}
        </Box>
      </Box>
      <Box sx={{ fontSize: 12, color: "text.secondary", lineHeight: 1.4 }}>
        {device}, {when}
        {waits &&
          sent.count > 0 &&
          t(", {printed} of {count} pages", { printed: sent.printed, count: sent.count })}
      </Box>
      {sent.message && <Box sx={{ fontSize: 12, color: colours.rust, lineHeight: 1.35 }}>{sent.message}</Box>}
      {sent.state === "printed" && (
        <Button
          component="a"
          href={`/api/prints/${sent.id}/file/`}
          target="_blank"
          rel="noopener"
          sx={{ minWidth: 0, px: 0.75, ml: -0.75, minHeight: 24, fontSize: 12 }}
        >
          {t("Look at the print")}
        </Button>
      )}
      {waits && (
        <Button onClick={onCancel} sx={{ minWidth: 0, px: 0.75, ml: -0.75, minHeight: 24, fontSize: 12 }}>
          {t("Cancel")}
        </Button>
      )}
    </Box>
  );
}
