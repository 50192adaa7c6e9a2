// Starts the stand-ins for a data folder, as a process of its own beside the web server.
import { makePdf } from '../demo/pdf';
import { startMailbox } from './mailbox';
import { startWebSource } from './web-source';

const [folder, smtp, web, source] = process.argv.slice(2);
const notice = await makePdf({
	title: 'Conditions on the river below Oxmere',
	subtitle: 'Issued by the river office on its own website',
	colour: '#2d5f8b',
	size: 'A4',
	day: '2026-11-20',
	seed: 77,
	sections: [
		{
			heading: 'Flow',
			paragraphs: ['The river runs high after the rain of last week. Boats bound for the lower river should wait at Oxmere basin until the boards are yellow.']
		},
		{ heading: 'Locks', paragraphs: ['The tidal lock works two hours either side of high water. Call the keeper the evening before.'] }
	]
});
const mailbox = await startMailbox(folder!, { smtp: Number(smtp), web: Number(web) });
const website = await startWebSource(Number(source), notice);
process.send?.('up');
const end = () => {
	mailbox.stop();
	website.stop();
	process.exit(0);
};
process.on('SIGTERM', end);
process.on('SIGINT', () => {});
process.on('disconnect', end);
