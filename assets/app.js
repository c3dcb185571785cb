import htmx from 'htmx';
import { watchLayout } from './layout.js';
import { watchShot } from './shot.js';
import { watchRun } from './run.js';
import { watchShoot } from './shoot.js';
import { watchDrillEditor } from './drill-editor.js';
import { watchPictures } from './pictures.js';
import { watchPractice } from './practice.js';
import { watchTableTest } from './table-test.js';
import { watchPicture } from './picture.js';
import { watchTeaching } from './teaching.js';
import { watchPage } from './page.js';
import { watchAnswers } from './answers.js';

window.htmx = htmx;
watchPage();
watchAnswers(htmx);
watchLayout(htmx);
watchShot(htmx);
watchRun(htmx);
watchShoot();
watchPractice();
watchDrillEditor();
watchPictures();
watchTableTest();
watchPicture();
watchTeaching();
if (document.querySelector('[data-qr], [data-print]')) {
    import('./cards.js').then(({ drawCodes }) => drawCodes());
}
if (document.querySelector('[data-plot]')) {
    import('./plots.js').then(({ drawPlots }) => drawPlots());
}
