import { Growth } from '@zaffet/core'; import { FILM, inputOf } from '../../packages/core/src/testing/fields';
const STROKED = { strokes: 'one-way', strokeContrast: 0.45 } as const; const WEB = { ...FILM, stiffness: 2.1, toughness: 0.015 };
for (const [n,i] of [['panel',inputOf(FILM,{widthMm:600,heightMm:400,...STROKED})],['board',inputOf(WEB,{widthMm:100,heightMm:100})]] as const){ for(let k=0;k<2;k++){const t=performance.now();const g=new Growth(i);while(g.step());const f=g.result();console.log(n,performance.now()-t,f.count,f.rays)}}
