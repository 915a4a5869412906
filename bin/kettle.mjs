#!/usr/bin/env node
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { programFile } from './setup/programs.mjs';

const root = path.dirname(path.dirname(fileURLToPath(import.meta.url)));
// The home folder is that of the project, wherever the command is called from; its own lines go to standard error.
process.env.KETTLE_HOME = path.resolve(root, process.env.KETTLE_HOME ?? '.kettle');
process.env.KETTLE_LOG_LEVEL ??= 'silent';
await import(programFile(root, 'kettle'));
