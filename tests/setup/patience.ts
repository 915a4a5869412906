/**
 * How long tests wait for something to happen, in milliseconds, before they say that it did not. A machine may be busy with
 * anything; what comes ends the wait at once, so that this costs only what fails. KETTLE_PATIENCE (seconds) shortens it while
 * a test is being written.
 */
export const PATIENCE = Number(process.env.KETTLE_PATIENCE ?? 120) * 1000;

/** How long one test may take: several waits. */
export const TEST_PATIENCE = 4 * PATIENCE;
