import htmx from 'htmx';
import { watchLayout } from './layout.js';
import { watchShot } from './shot.js';
import { watchRun } from './run.js';
import { watchPage } from './page.js';

window.htmx = htmx;
watchPage();
watchLayout(htmx);
watchShot(htmx);
watchRun();
