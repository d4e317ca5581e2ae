/** What part of a picture is looked at: its middle as parts of the picture, and how much larger than fitted it is. */
export interface View {
  x: number;
  y: number;
  zoom: number;
}

export const WHOLE: View = { x: 0.5, y: 0.5, zoom: 1 };
const MOST_ZOOM = 32;
const LEAST_ZOOM = 0.05;

export interface Size {
  width: number;
  height: number;
}

const clamp = (v: number, low: number, high: number): number => Math.min(high, Math.max(low, v));

/** The size at which a picture just fits a pane. */
export function fitted(picture: Size, pane: Size): Size {
  const k = Math.min(pane.width / picture.width, pane.height / picture.height);
  return { width: picture.width * k, height: picture.height * k };
}

/** The zoom at which one pixel of a picture is one pixel of the screen. */
export function trueZoom(picture: Size, pane: Size, pixelRatio: number): number {
  return picture.width / pixelRatio / fitted(picture, pane).width;
}

/** Where and how large a picture lies in a pane. */
export function placed(picture: Size, pane: Size, view: View): { left: number; top: number; width: number; height: number } {
  const fit = fitted(picture, pane);
  const [width, height] = [fit.width * view.zoom, fit.height * view.zoom];
  return { left: pane.width / 2 - view.x * width, top: pane.height / 2 - view.y * height, width, height };
}

/** Another zoom, the point under the pointer (parts of the pane) staying where it is. */
export function zoomedAt(view: View, by: number, at: { x: number; y: number }, picture: Size, pane: Size): View {
  const zoom = clamp(view.zoom * by, LEAST_ZOOM, MOST_ZOOM);
  const fit = fitted(picture, pane);
  // What lies under the pointer, in parts of the picture, before and after.
  const under = (z: number): { x: number; y: number } => ({
    x: ((at.x - 0.5) * pane.width) / (fit.width * z),
    y: ((at.y - 0.5) * pane.height) / (fit.height * z),
  });
  const [before, after] = [under(view.zoom), under(zoom)];
  return within({ x: view.x + before.x - after.x, y: view.y + before.y - after.y, zoom });
}

/** Moved by pixels of the pane. */
export function moved(view: View, dx: number, dy: number, picture: Size, pane: Size): View {
  const fit = fitted(picture, pane);
  return within({ ...view, x: view.x - dx / (fit.width * view.zoom), y: view.y - dy / (fit.height * view.zoom) });
}

function within(view: View): View {
  return { zoom: view.zoom, x: clamp(view.x, 0, 1), y: clamp(view.y, 0, 1) };
}
