/** Which page is shown: what is behind a link, or the stations of whoever is signed in. */
import { lazy, Suspense } from "react";
import { Route, Routes } from "react-router-dom";
import { Invited } from "./features/projects/Invited";

// Whoever reviews needs nothing of the stations, and waits for none of it.
const ReviewPage = lazy(() =>
  import("./features/review/ReviewPage").then((m) => ({ default: m.ReviewPage })),
);
const Signed = lazy(() => import("./Stations").then((m) => ({ default: m.Signed })));

export function App() {
  return (
    <Suspense>
      <Routes>
        <Route path="/invited/:secret" element={<Invited />} />
        <Route path="/review/:secret" element={<ReviewPage />} />
        <Route path="*" element={<Signed />} />
      </Routes>
    </Suspense>
  );
}
