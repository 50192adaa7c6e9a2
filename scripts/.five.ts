import { chromium } from 'playwright';
import { readFileSync } from 'node:fs';
const signIn = JSON.parse(readFileSync('/tmp/ia/sign-in.json','utf8'));
const browser = await chromium.launch({ executablePath:'/usr/bin/chromium', args:['--no-sandbox','--disable-dev-shm-usage','--disable-gpu'] });
const ctx = await browser.newContext({ baseURL: signIn.origin, viewport:{width:1280,height:800} });
await ctx.request.post('/api/auth/sign-in/email', { data: signIn.staff });
const page = await ctx.newPage(); page.on('pageerror', e=>console.log('ERR', e.message)); page.on('console', m=>{ if(m.type()==='error') console.log('CONSOLE', m.text()); });
await page.goto('/desk/documents'); await page.waitForLoadState('networkidle');
await ctx.request.delete('/api/v1/intake', { headers: { origin: signIn.origin } });
const base = readFileSync('node_modules/node-signpdf/resources/no-metadata.pdf');
const files = Array.from({length:500},(_,i)=>({ name:`Sheet ${String(i+1).padStart(3,'0')}.pdf`, mimeType:'application/pdf', buffer: Buffer.concat([base, Buffer.from(`% number ${i} ${Date.now()}\n`)]) }));
const at = Date.now();
await page.getByLabel('Choose PDF files to bring in').setInputFiles(files);
console.log('in the tray after', Date.now()-at);
await page.waitForTimeout(15000);
await page.screenshot({ path:'/tmp/shots/five.png' });
// usable meanwhile? time of a click on a room and back
const t = Date.now(); await page.getByRole('link',{name:'People',exact:true}).click(); await page.getByRole('heading',{name:'People'}).waitFor(); console.log('to People', Date.now()-t, 'ms');
const lag = await page.evaluate(() => new Promise<number>(d=>{ let worst=0, last=performance.now(); const i=setInterval(()=>{ const n=performance.now(); worst=Math.max(worst,n-last-50); last=n; },50); setTimeout(()=>{clearInterval(i); d(worst);},5000); }));
console.log('longest pause of the page in 5 s:', lag.toFixed(0),'ms');
await page.reload(); await page.waitForTimeout(3000); await page.screenshot({ path:'/tmp/shots/five2.png' });
for (let i=0;i<60;i++){ const s = await page.locator('.tray header p').textContent().catch(()=>null); if (i%6==0) console.log(((Date.now()-at)/1000).toFixed(0),'s', s); if (s?.startsWith('500 of')) break; await page.waitForTimeout(5000); }
console.log('all after', ((Date.now()-at)/1000).toFixed(0));
await browser.close();
