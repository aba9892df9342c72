#!/usr/bin/env node
import '../../scripts/typescript.mjs';

await import('../src/main.ts');
