#!/usr/bin/env node
import '../dist/cli/begin.js';
