// English, for the word checks.
import { phrases, words, type WordData } from './word-data.ts';

export const ENGLISH: WordData = {
  language: 'en',
  standIns: phrases(`
    abc, add alt text, alt tag, asdf, blah, blah blah, blah blah blah, change me, coming soon,
    fill in later, fixme, foo, foo bar, foobar, n/a, na, no alt, no description, no description available,
    none, null, qwerty, spacer, tba, tbc, tbd, to be added, to be done, to do, todo, undefined, unknown,
    write me, xxx
  `),
  instructions: phrases(`
    lorem ipsum, insert alt, insert description, insert image, insert text, add alt, add a description,
    add description, add text here, enter alt, enter description, enter text, describe this,
    describe the image, describe the photo, describe image, type alt, todo:, tbd:, fixme:, your text,
    your alt, alt text goes, text goes here, description goes here, image goes here, photo goes here,
    dolor sit
  `),
  emptyNouns: words(`
    alt background banner bild caption copy cover default demo description dummy example fig figure file
    final gallery graphic header hero icon image img item logo new photo photograph pic picture placeholder
    sample slide slideshow temp test testing text thumb thumbnail title untitled
  `),
  fillers: words(`
    a an and by for here my no number of our the this with to
  `),
  dummies: words('test dummy placeholder'),
  pictureNouns: words(`
    image picture photo photograph pic pict snap snapshot shot graphic icon img
  `),
  idleAdjectives: phrases(`
    amazing, banner, beautiful, close-up, closeup, color, colour, cover, detailed, digital, featured, fine,
    good, great, header, hero, high-resolution, large, lovely, main, nice, product, small, stock, stunning,
    thumbnail, wonderful, black and white, black-and-white
  `),
  determiners: words(`
    a an the this our my another one
  `),
  leads: phrases(`
    of, showing, shows, which shows, depicting, depicts, displaying, featuring, features,
    illustrating, with a view of, contains, containing, that shows, in which we see, where we see
  `),
  fixedOpenings: phrases(`
    here we see, here we can see, here you see, here you can see, in this image, in this photo,
    in this photograph, in this picture, in the image, in the photo, in the photograph, in the picture,
    pictured here is, pictured here are, pictured here, pictured is, pictured, seen here is, seen here are,
    shown here is, shown here are
  `),
  presenters: phrases('here is, heres, this is, here’s'),
  copulas: words('is are'),
  bound: [],
  functionWords: words(`
    a about above across after against along among an and are around as at be before behind being below
    beneath beside between beyond both but by down each for from has have her his in inside into is it its
    like near next of off on one onto or our out outside over past some than that the their them then these
    they this through to towards two under up upon was were where which while who whose with without
  `),
  articles: words('a an the'),
  doubled: words(`
    that had is very so no bye knock bora pago choo really far long many much more again ha tut tick can aye
    hush yum mahi walla baden cha
  `),
  targets: words(`
    about account add address apply archive article ask back basket book booking browse buy call cart
    catalogue checkout choose close collect contact continue course courses delete delivery diary directions
    discover download edit email enlarge enter event events expand explore faq find follow gallery get go
    guide help home homepage hours join journal language learn listen login mail map meet menu more news
    newsletter next open opening order page pause pay phone play previous price prices print profile read
    register remove reserve return save search see send services share shop show sign skip start stop store
    submit subscribe telephone tickets tour view visit watch website workshop workshops write zoom
  `),
  signs: words(`
    arrow badge banner box bubble button chevron circle cog cross disc dots drawing emblem envelope gear
    glyph graphic house icon image letter lines logo loupe magnifier magnifying outline photo picture pin
    silhouette square star symbol thumbnail triangle trolley wordmark
  `),
  describers: words('a an two three some several'),
  appearance: words(`
    red green blue yellow orange purple violet pink brown black white grey gray beige cream turquoise teal
    cyan magenta gold golden silver bronze copper crimson scarlet maroon navy olive lilac mauve ivory tan
    ochre amber rust dark light bright pale deep colourful colorful multicoloured monochrome round circular
    oval square rectangular triangular curved curvy flat long short tall wide narrow thick thin tiny small
    big large huge little giant slim slender rounded pointed pointy straight bent wavy spiral shiny glossy
    matt matte smooth rough soft hard striped spotted dotted speckled patterned transparent shape shapes
    colour colours color colors circle circles oval ovals rectangle rectangles triangle triangles line lines
    stripe stripes dot dots spot spots pattern patterns tone tones shade shades hue hues blob blobs
  `),
  appearanceEndings: words('coloured colored shaped ish toned'),
  inflections: [],
  generics: words(`
    three four five six seven eight nine ten several many few thing things something object objects item items stuff piece pieces one ones form forms background
    foreground side top bottom middle centre center left right very quite rather somewhat slightly mostly
    partly
  `),
  capitalNouns: false,
};
