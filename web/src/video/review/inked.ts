/** A drawing of the page as a picture that stands alone: with the ink that its classes give it. */

const STYLES = [
  'fill',
  'fill-opacity',
  'stroke',
  'stroke-width',
  'stroke-opacity',
  'stroke-dasharray',
  'opacity',
  'display',
  'visibility',
  'font-size',
  'font-weight',
  'text-anchor',
  'paint-order',
] as const;

/** @throws Error when the browser cannot draw it */
export async function inked(svg: SVGSVGElement): Promise<HTMLImageElement> {
  const copy = svg.cloneNode(true) as SVGSVGElement;
  const { width, height } = svg.getBoundingClientRect();
  if (!copy.hasAttribute('viewBox')) copy.setAttribute('viewBox', `0 0 ${width} ${height}`);
  copy.setAttribute('xmlns', 'http://www.w3.org/2000/svg');
  copy.setAttribute('width', String(width));
  copy.setAttribute('height', String(height));
  const copies = copy.querySelectorAll<SVGElement>('*');
  svg.querySelectorAll('*').forEach((one, i) => {
    const ink = getComputedStyle(one);
    const to = copies[i]!;
    to.setAttribute(
      'style',
      STYLES.map((name) => `${name}:${ink.getPropertyValue(name)}`).join(';'),
    );
    to.removeAttribute('class');
  });
  copy.removeAttribute('class');
  // A picture by itself does not know the page’s fonts.
  copy.setAttribute('style', 'font-family: "Liberation Sans", Arial, sans-serif');
  const image = new Image();
  const text = new XMLSerializer().serializeToString(copy);
  image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(text)}`;
  await image.decode();
  return image;
}
