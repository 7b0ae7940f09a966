/** Pictures of pixels, fetched once; the board paints itself again when one comes. */
import { pictures } from "./pictures";

export class PixelStore {
  private readonly known = new Map<string, HTMLImageElement>();

  constructor(
    private readonly addressOf: (key: string) => string,
    private readonly tell: () => void,
  ) {}

  /** A picture by its key; null while it is on its way. */
  get(key: string): HTMLImageElement | null {
    let image = this.known.get(key);
    if (!image) {
      image = new Image();
      this.known.set(key, image);
      image.onload = this.tell;
      image.onerror = () => this.known.delete(key); // fetched again with the next painting
      image.src = this.addressOf(key);
    }
    return image.complete && image.naturalWidth ? image : null;
  }
}

/** Those of templates and of annotation. */
const own = new PixelStore(
  (picture) => `/api/pictures/${picture}/pixels/`,
  () => pictures.tell(),
);
export const pixelsOf = (picture: string) => own.get(picture);
