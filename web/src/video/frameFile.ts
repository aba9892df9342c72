/** The frame in hand as a file of its own, with all that is drawn on it. */

/**
 * The overlay as a drawing that stands alone.
 *
 * @param picture as an address of data; left out, only what is drawn is in it
 */
export function standingAlone(overlay: SVGSVGElement, picture?: string): string {
  const copy = overlay.cloneNode(true) as SVGSVGElement;
  const { width, height } = overlay.viewBox.baseVal;
  copy.setAttribute('xmlns', 'http://www.w3.org/2000/svg');
  copy.setAttribute('width', String(width));
  copy.setAttribute('height', String(height));
  copy.setAttribute('font-family', 'sans-serif');
  // What only takes clicks, and what is said to those who do not see, is no part of the picture.
  copy
    .querySelectorAll('title, [fill="transparent"]:not([stroke]), [stroke="transparent"]')
    .forEach((one) => one.remove());
  for (const one of [copy, ...copy.querySelectorAll('*')]) {
    for (const name of ['class', 'style', 'role', 'aria-label']) one.removeAttribute(name);
  }
  if (picture) {
    const image = document.createElementNS('http://www.w3.org/2000/svg', 'image');
    for (const [name, value] of Object.entries({ href: picture, width, height })) {
      image.setAttribute(name, String(value));
    }
    copy.prepend(image);
  }
  return new XMLSerializer().serializeToString(copy);
}

/** What is drawn, as a picture. @throws Error when the browser cannot draw it */
export async function overlayPicture(overlay: SVGSVGElement): Promise<HTMLImageElement> {
  const image = new Image();
  image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(standingAlone(overlay))}`;
  await image.decode();
  return image;
}

/** @throws Error when the browser cannot draw it */
export async function pictureOf(
  film: HTMLCanvasElement,
  overlay: SVGSVGElement,
  type: 'image/png' | 'image/jpeg',
): Promise<Blob> {
  const drawn = await overlayPicture(overlay);
  const canvas = document.createElement('canvas');
  [canvas.width, canvas.height] = [film.width, film.height];
  const context = canvas.getContext('2d')!;
  context.drawImage(film, 0, 0);
  context.drawImage(drawn, 0, 0, canvas.width, canvas.height);
  return new Promise((resolve, reject) =>
    canvas.toBlob((blob) => (blob ? resolve(blob) : reject(new Error('no picture'))), type, 0.88),
  );
}

export function asSvg(film: HTMLCanvasElement, overlay: SVGSVGElement): Blob {
  return new Blob([standingAlone(overlay, film.toDataURL('image/jpeg', 0.92))], {
    type: 'image/svg+xml',
  });
}

/** Puts a file where the browser puts what is downloaded. */
export function download(blob: Blob, name: string): void {
  const address = URL.createObjectURL(blob);
  const link = document.createElement('a');
  [link.href, link.download] = [address, name];
  link.click();
  // The browser has taken it by then.
  setTimeout(() => URL.revokeObjectURL(address), 60_000);
}
