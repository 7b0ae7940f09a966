/** Asking for reviews, and what becomes of their links. */
import { api, data, type Comment, type Review } from "../../../api/client";
import { queryClient } from "../../../api/queryClient";
import { isoDay } from "../../../components/moments";
import { t } from "../../../words/words";

/** A link with its secret, which is told this once. */
export interface SecretLink {
  id: string;
  name: string;
  secret: string;
}

export interface ReviewRequest {
  project: string;
  name: string;
  message: string;
  issue: string | null;
  sheets: string[];
  until: string;
  word: string;
  people: string[];
  anyone: boolean;
}

const renewed = (project: string) => queryClient.invalidateQueries({ queryKey: ["reviews", project] });
const at = (id: string) => ({ params: { path: { id } } });

export async function askForReview(asked: ReviewRequest) {
  const made = await data(api.POST("/api/reviews/", { body: asked }));
  await renewed(asked.project);
  return made;
}

export async function withdraw(review: Review) {
  await data(api.POST("/api/reviews/{id}/withdraw/", at(review.id)));
  await renewed(review.project);
}

export async function extend(review: Review, until: string) {
  await data(api.POST("/api/reviews/{id}/extend/", { ...at(review.id), body: { until } }));
  await renewed(review.project);
}

export async function addLink(review: Review, name: string): Promise<SecretLink> {
  const made = await data(api.POST("/api/reviews/{id}/links/", { ...at(review.id), body: { name } }));
  await renewed(review.project);
  return made;
}

export async function renewLink(review: Review, link: string): Promise<SecretLink> {
  const made = await data(api.POST("/api/review-links/{id}/renew/", at(link)));
  await renewed(review.project);
  return made;
}

export async function deleteLink(review: Review, link: string) {
  await data(api.DELETE("/api/review-links/{id}/", at(link)));
  await renewed(review.project);
}

/** The address that somebody is sent. */
export const addressOf = (secret: string) => `${window.location.origin}/review/${secret}`;

/** The end of a day in this place, as the server takes it. */
export const endOf = (day: string) => new Date(`${day}T23:59:59`).toISOString();

/** The day so many days from now: 2026-12-11. */
export function inDays(days: number, from = new Date()): string {
  const day = new Date(from);
  day.setDate(day.getDate() + days);
  return isoDay(day);
}

/** Whether a review can be commented. */
export const isOpen = (review: Review, now: Date) =>
  review.job?.state !== "failed" &&
  review.job?.state !== "cancelled" &&
  review.ready &&
  !review.withdrawn &&
  new Date(review.until) > now;

/** How a review stands, in words. */
export function standing(review: Review, now: Date): string {
  if (review.job?.state === "failed") return t("Could not be made ready");
  if (review.job?.state === "cancelled") return t("Cancelled");
  if (!review.ready) return t("Being made ready");
  if (review.withdrawn) return t("Withdrawn");
  return isOpen(review, now) ? t("Open") : t("Ended");
}

/** Which comments are listed. */
export interface Wanted {
  text: string;
  state: string;
  sheet: string;
  review: string;
  assigned: string;
}
export const ALL: Wanted = { text: "", state: "", sheet: "", review: "", assigned: "" };

/** The comments that are wanted, those that wait the longest first among the open ones. */
export function filtered(comments: readonly Comment[], wanted: Wanted): Comment[] {
  const words = wanted.text.trim().toLocaleLowerCase().split(/\s+/).filter(Boolean);
  return comments.filter((comment) => {
    const said = [comment.text, comment.author, comment.sheet_number, ...comment.answers.map((a) => a.text)]
      .join(" ")
      .toLocaleLowerCase();
    return (
      words.every((word) => said.includes(word)) &&
      (!wanted.state || comment.state === wanted.state) &&
      (!wanted.sheet || comment.sheet_number === wanted.sheet) &&
      (!wanted.review || comment.review === wanted.review) &&
      (!wanted.assigned || comment.assigned === wanted.assigned)
    );
  });
}
