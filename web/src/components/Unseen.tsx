/** Words for those who hear the page; not seen, but a part of the name of what they stand in. */
import Box from "@mui/material/Box";
import { visuallyHidden } from "@mui/utils";

export const Unseen = ({ children }: { children: string }) => (
  <Box component="span" sx={visuallyHidden}>
    {children}
  </Box>
);
