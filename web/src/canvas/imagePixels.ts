/** Pictures of pixels on templates, fetched once; the board paints itself again when one comes. */
import { pictures } from "./pictures";

const known = new Map<string, HTMLImageElement>();

export function pixelsOf(picture: string): HTMLImageElement | null {
  let image = known.get(picture);
  if (!image) {
    image = new Image();
    known.set(picture, image);
    image.onload = () => pictures.tell();
    image.onerror = () => known.delete(picture); // fetched again with the next painting
    image.src = `/api/pictures/${picture}/pixels/`;
  }
  return image.complete && image.naturalWidth ? image : null;
}
