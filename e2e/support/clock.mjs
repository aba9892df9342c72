/** For `node --import`: a machine whose clock is wrong by SINEW_TEST_CLOCK_DAYS. */
const OFF = Number(process.env.SINEW_TEST_CLOCK_DAYS ?? 0) * 86_400_000;
const trueNow = Date.now;

globalThis.Date = new Proxy(Date, {
  construct: (Real, given) => (given.length === 0 ? new Real(trueNow() + OFF) : new Real(...given)),
  get: (Real, name) => (name === 'now' ? () => trueNow() + OFF : Reflect.get(Real, name)),
});
