import { itsMachine } from './machines';

// Before anything of the application is loaded, which takes its settings once.
Object.assign(process.env, itsMachine().settings);
