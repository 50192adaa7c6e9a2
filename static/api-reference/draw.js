// Draws the reference of the API from its own description.
Redoc.init(
	'/api/v1/openapi.json',
	{
		hideDownloadButton: false,
		hideFab: true,
		disableSearch: false,
		requiredPropsFirst: true,
		sortRequiredPropsFirst: true,
		pathInMiddlePanel: true,
		jsonSampleExpandLevel: 3,
		nativeScrollbars: true,
		theme: {
			colors: { primary: { main: '#1f5d57' }, text: { primary: '#23241f' } },
			typography: {
				fontFamily: 'Commissioner, system-ui, sans-serif',
				fontSize: '16px',
				headings: { fontFamily: 'Literata, Georgia, serif', fontWeight: '600' },
				links: { color: '#1f5d57', visited: '#1f5d57' }
			},
			sidebar: { backgroundColor: '#f3f0e7', textColor: '#23241f' },
			rightPanel: { backgroundColor: '#23312f' }
		}
	},
	document.getElementById('reference')
);
