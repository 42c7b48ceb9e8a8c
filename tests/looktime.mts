import { startSite } from '/work/main/tests/e2e/site.ts'
const site=await startSite({from:'bills',file:'x'})
const t=Date.now()
const r=await fetch(site.base+'/api/v1/savings/look',{method:'POST'}); 
console.log(Date.now()-t)
await site.stop(); process.exit(0)
