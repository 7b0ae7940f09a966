/** Which page is shown: what is behind a link, or the stations of whoever is signed in. */
import { matchPath, Route, Routes } from "react-router-dom";

/**
 * The pages from an address on. They are there before anything is shown: where React waits for parts of a
 * page, it keeps an empty one in sight for a while. Whoever reviews waits for nothing of the stations.
 */
export async function pagesFrom(path: string) {
  if (matchPath("/review/:secret", path)) {
    const { ReviewPage } = await import("./features/review/ReviewPage");
    return (
      <Routes>
        <Route path="/review/:secret" element={<ReviewPage />} />
      </Routes>
    );
  }
  const [{ Signed }, { Invited }] = await Promise.all([
    import("./Stations"),
    import("./features/projects/Invited"),
  ]);
  return (
    <Routes>
      <Route path="/invited/:secret" element={<Invited />} />
      <Route path="*" element={<Signed />} />
    </Routes>
  );
}
