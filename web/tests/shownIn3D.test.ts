/** What is hidden in 3D is hidden in the view that is saved from there. */
import { expect, it } from "vitest";
import { shownIn3D } from "../src/features/model/shownIn3D";
import type { SolidElement } from "../src/features/model/solid";

const element = (id: string, storey: string, material: string): SolidElement => ({
  id,
  storey,
  material,
  name: id,
  class: "IfcWall",
  layer: "",
  points: [0, 0],
  triangles: [0, 0],
  edges: [0, 0],
});
const ELEMENTS = [element("a", "Ground", "Brick"), element("b", "Upper", "Brick"), element("c", "", "Oak")];

it("a storey is left out by its name, and what a later version adds to it as well", () => {
  const shown = shownIn3D(ELEMENTS, "storey", new Set(["Upper", "id:a"]));
  expect(shown).toMatchObject({ without_storeys: ["Upper"], without: ["a"], only: [] });
});

it("what has no storey, and parts that views do not know, are left out one by one", () => {
  expect(shownIn3D(ELEMENTS, "storey", new Set([""]))).toMatchObject({ without_storeys: [], without: ["c"] });
  expect(shownIn3D(ELEMENTS, "material", new Set(["Brick"]))).toMatchObject({ without: ["a", "b"] });
});

it("where nothing is hidden, nothing is left out", () => {
  expect(Object.values(shownIn3D(ELEMENTS, "layer", new Set())).flat()).toEqual([]);
});
