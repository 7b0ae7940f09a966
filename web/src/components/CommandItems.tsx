/** Commands as the items of a menu. */
import Box from "@mui/material/Box";
import Divider from "@mui/material/Divider";
import MenuItem from "@mui/material/MenuItem";

/** What it is called, what it does, and the keys that do it as well. */
export type Command = readonly [name: string, command: () => void, keys?: string];
/** Commands in their groups; groups that are empty are left out. */
export type CommandGroups = readonly (readonly Command[])[];

export function commandItems(groups: CommandGroups, onDone: () => void) {
  return groups
    .filter((group) => group.length)
    .flatMap((group, k) => [
      ...(k ? [<Divider key={`before ${group[0]?.[0]}`} sx={{ my: "2px !important" }} />] : []),
      ...group.map(([name, command, keys]) => (
        <MenuItem
          key={name}
          dense
          onClick={() => {
            onDone();
            command();
          }}
        >
          <Box component="span" sx={{ flex: 1 }}>
            {name}
          </Box>
          {keys && (
            <Box component="span" sx={{ ml: 3, fontSize: 11.5, color: "text.secondary" }}>
              {keys}
            </Box>
          )}
        </MenuItem>
      )),
    ]);
}
