// The process of a helper (lib/server/pdf/helper.ts): answers what it is asked over its channel, and ends with who started it.
import sharp from 'sharp';
import { answerTo, type Asked } from '#server/pdf/helper';

// as many helpers as cores: each keeps to one
sharp.concurrency(1);
sharp.cache(false);
// it is always forked, so there is a way back
process.on('message', (asked: Asked) => void answerTo(asked).then((answered) => process.send!(answered)));
process.on('disconnect', () => process.exit(0));
// the terminal's Ctrl-C is for the server, which lets its helpers go
process.on('SIGINT', () => {});
