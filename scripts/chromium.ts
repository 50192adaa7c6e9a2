// Debian's Chromium as tests and pictures start it: no sandbox as root, no calls home.
export const chromiumOptions = {
	executablePath: '/usr/bin/chromium',
	args: [
		'--no-sandbox',
		'--disable-dev-shm-usage',
		'--disable-gpu',
		'--disable-quic',
		'--no-first-run',
		'--disable-background-networking',
		'--disable-component-update',
		'--disable-sync'
	]
};
