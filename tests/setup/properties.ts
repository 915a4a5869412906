import fc from 'fast-check';

// CI says of a change what the change did: it draws the same cases each time. By hand new ones are drawn.
if (process.env.CI) fc.configureGlobal({ seed: 20261126 });
