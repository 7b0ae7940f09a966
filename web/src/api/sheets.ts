/** Sheets and what stands on them, as the server has them. */
import { queryOptions, useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import {
  api,
  data,
  type DisplayList,
  type Register,
  type Sheet,
  type Template,
  type Viewport,
} from "./client";
import { ofProject } from "./queryClient";
import { watched } from "./pace";
import { consistent } from "./writing";

export const sheetsOf = (project: string) =>
  queryOptions({
    queryKey: ["sheets", project],
    queryFn: () => consistent(() => data(api.GET("/api/sheets/", ofProject(project)))),
    refetchInterval: watched,
  });
export const useSheets = (project: string) => useQuery(sheetsOf(project));
/** The sheet of an address; the first of the register where it names none. */
export const openOf = (sheets: readonly Sheet[], id: string | undefined) =>
  sheets.find((s) => s.id === id) ?? sheets.toSorted((a, b) => a.position - b.position)[0];
export const viewportsOf = (project: string) =>
  queryOptions({
    queryKey: ["viewports", project],
    queryFn: () =>
      consistent(() => data(api.GET("/api/viewports/", ofProject(project))) as Promise<Viewport[]>),
    refetchInterval: watched,
  });
export const useViewports = (project: string) => useQuery(viewportsOf(project));
export const displayOf = (sheet: string) =>
  queryOptions({
    queryKey: ["display", sheet],
    queryFn: () =>
      data(
        api.GET("/api/sheets/{id}/display/", { params: { path: { id: sheet } } }),
      ) as unknown as Promise<DisplayList>,
    placeholderData: (last) => last,
    enabled: Boolean(sheet),
  });
export const useDisplay = (sheet: string) => useQuery(displayOf(sheet));

/** What every field says on a sheet where nothing is overridden. */
export const useDerived = (sheet: string) =>
  useQuery({
    queryKey: ["display", sheet, "fields"],
    queryFn: async () =>
      (await data(api.GET("/api/sheets/{id}/field-values/", { params: { path: { id: sheet } } }))).derived,
    placeholderData: (last: Record<string, string> | undefined) => last,
  });
/** What is wrong with the numbers of sheets, by the sheet's id. */
export const useNumberWarnings = (project: string) =>
  useQuery({
    queryKey: ["number-warnings", project],
    queryFn: async () =>
      Object.fromEntries(
        (await data(api.GET("/api/sheets/number-warnings/", ofProject(project)))).map((w) => [
          w.sheet,
          w.message,
        ]),
      ),
    placeholderData: (last: Record<string, string> | undefined) => last,
  });
/** On which sheets a view stands, by their numbers in register order. */
export function usePlacedOn(project: string): (view: string) => string[] {
  const { data: sheets } = useSheets(project);
  const { data: viewports } = useViewports(project);
  return useMemo(() => {
    const order = (sheets ?? []).toSorted((a, b) => a.position - b.position);
    return (view) => {
      const ids = new Set((viewports ?? []).filter((v) => v.view === view).map((v) => v.sheet));
      return order.filter((s) => ids.has(s.id)).map((s) => s.number);
    };
  }, [sheets, viewports]);
}

/** What a title block can say; it never changes. */
export const useFields = () =>
  useQuery({ queryKey: ["fields"], queryFn: () => data(api.GET("/api/fields/", {})), staleTime: Infinity });
/** What holds for all sheets of a project: there is one. */
export const useRegister = (project: string) =>
  useQuery({
    queryKey: ["registers", project],
    queryFn: () =>
      consistent(() => data(api.GET("/api/registers/", ofProject(project))) as Promise<Register[]>),
    refetchInterval: watched,
    select: ([register]) => register,
  });
export const useTemplates = (project: string) =>
  useQuery({
    queryKey: ["templates", project],
    queryFn: () =>
      consistent(() => data(api.GET("/api/templates/", ofProject(project))) as Promise<Template[]>),
    refetchInterval: watched,
  });
export const usePictures = (project: string) =>
  useQuery({
    queryKey: ["pictures", project],
    queryFn: () => data(api.GET("/api/pictures/", ofProject(project))),
  });
export const useLadder = (project: string) =>
  useQuery({
    queryKey: ["ladder", project],
    queryFn: () => data(api.GET("/api/ladder/", ofProject(project))),
    placeholderData: (last) => last,
  });
