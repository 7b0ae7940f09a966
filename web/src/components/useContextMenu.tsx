/** A menu at the pointer, with what can be done to what is under it. */
import Menu from "@mui/material/Menu";
import { useState, type MouseEvent, type ReactNode } from "react";
import { commandItems, type CommandGroups } from "./CommandItems";

interface Opened {
  top: number;
  left: number;
  groups: CommandGroups;
}

export function useContextMenu(): {
  menu: ReactNode;
  open: (event: MouseEvent, groups: CommandGroups) => void;
} {
  const [opened, setOpened] = useState<Opened | null>(null);
  const close = () => setOpened(null);
  const open = (event: MouseEvent, groups: CommandGroups) => {
    event.preventDefault();
    event.stopPropagation();
    // By a key it is at what has the keys, and not at the pointer.
    const box = event.currentTarget.getBoundingClientRect();
    const byKey = event.clientX === 0 && event.clientY === 0;
    setOpened({
      groups,
      left: byKey ? box.left + 16 : event.clientX,
      top: byKey ? box.top + 16 : event.clientY,
    });
  };
  const menu = (
    <Menu
      open={opened !== null}
      onClose={close}
      onContextMenu={(event) => {
        event.preventDefault();
        close();
      }}
      anchorReference="anchorPosition"
      anchorPosition={opened ?? undefined}
      transitionDuration={0}
      slotProps={{ list: { dense: true } }}
    >
      {opened && commandItems(opened.groups, close)}
    </Menu>
  );
  return { menu, open };
}
