/** Annotation and touch-ups, as the server has them. */
import { useQuery } from "@tanstack/react-query";
import {
  type Annotation,
  type AnnotationStyle,
  api,
  data,
  type LibrarySymbol,
  type ListedNote,
  type TableFile,
  type TouchUp,
} from "./client";
import { ofProject } from "./queryClient";
import { watched } from "./pace";
import { consistent } from "./writing";

export const useAnnotations = (project: string) =>
  useQuery({
    queryKey: ["annotations", project],
    queryFn: () =>
      consistent(() => data(api.GET("/api/annotations/", ofProject(project))) as Promise<Annotation[]>),
    refetchInterval: watched,
  });
export const useTouchUps = (project: string) =>
  useQuery({
    queryKey: ["touch_ups", project],
    queryFn: () =>
      consistent(() => data(api.GET("/api/touch-ups/", ofProject(project))) as Promise<TouchUp[]>),
    refetchInterval: watched,
  });
/** The notes of a project's list, by their numbers. */
export const useListedNotes = (project: string) =>
  useQuery({
    queryKey: ["listed_notes", project],
    queryFn: () =>
      consistent(() => data(api.GET("/api/listed-notes/", ofProject(project))) as Promise<ListedNote[]>),
    refetchInterval: watched,
  });
export const useAnnotationStyles = (project: string) =>
  useQuery({
    queryKey: ["annotation_styles", project],
    queryFn: () =>
      consistent(
        () => data(api.GET("/api/annotation-styles/", ofProject(project))) as Promise<AnnotationStyle[]>,
      ),
    refetchInterval: watched,
  });
/** The symbols that are built in, and the project's own. */
export const useSymbols = (project: string) =>
  useQuery({
    queryKey: ["symbols", project],
    queryFn: () =>
      consistent(() => data(api.GET("/api/symbols/", ofProject(project))) as Promise<LibrarySymbol[]>),
    refetchInterval: watched,
  });
export const useTableFiles = (project: string) =>
  useQuery({
    queryKey: ["table-files", project],
    queryFn: () => data(api.GET("/api/table-files/", ofProject(project))) as Promise<TableFile[]>,
  });
