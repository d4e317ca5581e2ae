import { moved, placed, trueZoom, WHOLE, zoomedAt } from './view';

const picture = { width: 768, height: 384 };
const pane = { width: 400, height: 400 };

describe('the view of laid together pictures', () => {
  it('fits the whole picture into the middle of its pane', () => {
    expect(placed(picture, pane, WHOLE)).toEqual({ left: 0, top: 100, width: 400, height: 200 });
  });
  it('keeps the point under the pointer where it is while it grows', () => {
    const at = { x: 0.25, y: 0.5 };
    const near = zoomedAt(WHOLE, 3, at, picture, pane);
    expect(near.zoom).toBe(3);
    const before = placed(picture, pane, WHOLE);
    const after = placed(picture, pane, near);
    const pointer = at.x * pane.width;
    expect((pointer - after.left) / after.width).toBeCloseTo((pointer - before.left) / before.width, 6);
  });
  it('moves with the hand, and never leaves the picture', () => {
    const near = { x: 0.5, y: 0.5, zoom: 4 };
    const after = moved(near, 40, 0, picture, pane);
    expect(placed(picture, pane, after).left - placed(picture, pane, near).left).toBeCloseTo(40, 6);
    expect(moved(near, 1e6, -1e6, picture, pane)).toEqual({ x: 0, y: 1, zoom: 4 });
  });
  it('knows when a pixel is a pixel, on fine screens too', () => {
    const zoom = trueZoom(picture, pane, 1);
    expect(placed(picture, pane, { ...WHOLE, zoom }).width).toBeCloseTo(768, 6);
    expect(placed(picture, pane, { ...WHOLE, zoom: trueZoom(picture, pane, 2) }).width).toBeCloseTo(384, 6);
  });
  it('stops zooming at an end', () => {
    expect(zoomedAt(WHOLE, 1e9, { x: 0.5, y: 0.5 }, picture, pane).zoom).toBe(32);
  });
});
