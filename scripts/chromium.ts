// Debian's Chromium as tests and pictures start it, built without windows of its own: no sandbox as root, no calls home.
export const chromiumOptions = {
	executablePath: '/usr/bin/chromium-headless-shell',
	args: [
		'--no-sandbox',
		'--disable-dev-shm-usage',
		'--disable-gpu',
		'--disable-quic',
		'--no-first-run',
		'--disable-background-networking',
		'--disable-component-update',
		'--disable-sync',
		// headless Chromium calls itself so, and would be taken for a robot
		'--user-agent=Mozilla/5.0 (X11; Linux x86_64) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/150.0.0.0 Safari/537.36'
	]
};
