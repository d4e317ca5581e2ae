import { Arrivals } from './arrivals';

describe('Arrivals', () => {
  it('foretell from the speed that was seen, whatever was there before', () => {
    const arrivals = new Arrivals();
    arrivals.see(true, 100, 50_000);
    arrivals.see(true, 103, 56_000);
    expect(arrivals.secondsFor(20, 103, 56_000)).toBeNull();
    arrivals.see(true, 110, 70_000);
    expect(arrivals.secondsFor(20, 110, 70_000)).toBeCloseTo(40);
  });
  it('are watched anew after a pause', () => {
    const arrivals = new Arrivals();
    arrivals.see(true, 0, 0);
    arrivals.see(false, 10, 10_000);
    expect(arrivals.secondsFor(5, 10, 10_000)).toBeNull();
    arrivals.see(true, 10, 500_000);
    expect(arrivals.secondsFor(6, 14, 508_000)).toBeCloseTo(12);
  });
});
