// The small words of some languages: who finds many of one and none of another knows which language a text is in. Lists
// of words that hold sentences together; names and things are in none.
import { words } from './word-data.ts';

export const SMALL_WORDS: Readonly<Record<string, ReadonlySet<string>>> = Object.fromEntries(
  Object.entries({
    en: `the a an and of in on at to from with by for is are was were be been it its this that these those there
      his her their he she they we you who which while into over under behind between through around beside along
      above below near out off up down or but not no as all one two some has have had do does can will our your`,
    de: `der die das dem den des ein eine einem einen einer eines und oder aber in im am an auf aus bei mit nach von
      vom vor zu zum zur über unter neben hinter zwischen durch für um ist sind war waren wird werden hat haben er
      sie es wir ihr ihre ihrem ihren ihrer sein seine seinem seinen seiner sich nicht kein keine auch noch nur wie
      als dass wenn während man ins ans beim`,
    fr: `le la les un une des du de au aux et ou où dans sur sous avec sans pour par en est sont était ont a qui que
      quoi dont ce cette ces cet son sa ses leur leurs il elle ils elles nous vous ne pas plus se devant derrière
      entre chez vers l d qu n s c`,
    es: `el la los las un una unos unas de del al y o en con sin por para es son está están era fue ha han que quien
      su sus se no sobre bajo entre desde hasta detrás delante junto como más muy este esta estos estas ese esa`,
    it: `il lo la i gli le un uno una di del dello della dei degli delle da dal dalla in nel nella nei nelle su sul
      sulla con per tra fra e è sono era ha hanno che chi cui si non al allo alla ai agli alle suo sua suoi loro
      dietro davanti sotto sopra vicino l d`,
    nl: `de het een en of van in op aan uit bij met naar voor door over onder tussen achter naast is zijn was waren
      wordt worden heeft hebben hij zij ze wij jullie zich niet geen ook nog maar als dat die deze dit er te om`,
    pt: `o a os as um uma uns umas de do da dos das em no na nos nas e ou com sem por pelo pela para é são está
      estão foi que quem seu sua seus suas se não ao à aos às sobre sob entre atrás`,
    pl: `i w we z ze na do od po za pod nad przed przy dla jest są był była było oraz lub ale nie się że który która
      które jego jej ich ten ta to te tym tej o u`,
    da: `og i på af til fra med ved for er var den det de en et som der ikke sig hans hendes deres over under mellem
      bag foran om men eller har havde`,
    sv: `och i på av till från med vid för är var den det de en ett som inte sig hans hennes deras över under mellan
      bakom framför om men eller har hade`,
  }).map(([language, list]) => [language, new Set(words(list))]),
);
