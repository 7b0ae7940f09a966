/** The name, with its dune. */
import Box from "@mui/material/Box";

export function Wordmark({
  size = 17,
  brief,
}: {
  size?: number;
  /** Without the name where there is little room. */ brief?: boolean;
}) {
  return (
    <Box
      component="span"
      sx={{
        display: "inline-flex",
        alignItems: "flex-end",
        gap: 0.75,
        fontSize: size,
        fontWeight: 700,
        letterSpacing: "-0.02em",
        lineHeight: 1,
      }}
    >
      <svg width={size * 1.4} height={size * 0.8} viewBox="0 0 28 16" aria-hidden>
        <path fill="#c9673f" d="M0 16C8 16 9 1 17 1c5 0 6 6 11 15z" />
        <path fill="#e6dcc8" d="M17 1c5 0 6 6 11 15H14c4-3 6-8 3-15z" />
      </svg>
      <Box component="span" sx={brief ? { "@media (max-width: 1099px)": { display: "none" } } : undefined}>
        Dunefold
      </Box>
    </Box>
  );
}
