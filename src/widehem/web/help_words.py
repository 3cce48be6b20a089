"""What is said in help over every screen: what it is for, what to do first, what is easily missed."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True)
class Help:
    """Help for a screen. lines: one thing each; guide: the heading of the guide where more stands."""

    title: str
    lines: tuple[str, ...]
    guide: str


HELP: dict[str, Help] = {
    "desk.index": Help("The day", (
        "What wants you, the newest first: what is due, not true, stale, in doubt, waiting, tried and not kept, still to read.",
        "A garment is due in the fourteen days before its day. Set the day under its tab “Garment”, or under “More” on the page of its production.",
        "What is cut is not called stale or not true any more; what is finished is called nothing at all.",
    ), "Productions, wearers, garments"),
    "people.production": Help("A production", (
        "Add a wearer, measure, begin a garment. Each garment shows six cells of weaving: measured, drafted, true, cut, fitted, finished. A red thread is half done, a pulled thread is stale.",
        "The underlined words beside the cells lead to what is next.",
        "Charts of a whole company come and go as files; a file to fill in is there too.",
    ), "Productions, wearers, garments"),
    "company.table": Help("The whole company", (
        "Everybody by measure: gaps, doubts, the age of charts. Press a gap to read it.",
        "The strips on top show where each wearer lies among the others.",
    ), "The whole company"),
    "wearer.about": Help("A wearer", (
        "Allergies and movement are said again wherever this wearer is measured, drafted and cut for, and on the first sheet of every print.",
        "The figure table only judges and estimates; no draft uses an estimate in place of a reading.",
    ), "Productions, wearers, garments"),
    "measure.chart": Help("The chart", (
        "One measure at a time: read it, write it, go on. Second readings show how sure the tape is; what counts is the mean.",
        "A doubt never blocks: read again, or keep the figure with a word why.",
        "Nothing is overwritten. “What stood here before” puts an earlier reading back.",
        "A waist goes with the hour: note the time of day, or press “Now”.",
    ), "Measure"),
    "measure.tape": Help("A session with the tape", (
        "For a tablet or a phone in one hand. “Next” and the yellow button both write what is typed. “Skip” leaves the measure for later.",
        "A doubtful figure keeps the session where it is while the wearer still stands there.",
        "At the end stands what was read, what is in doubt and what was skipped.",
    ), "Measure"),
    "measure.tape_end": Help("What the session came to", (
        "Press a measure to read it again. Skipped ones can be read now, or whenever the wearer comes next.",
    ), "Measure"),
    "sheet.whole": Help("The sheet", (
        "Every measure of the list in fields. Enter and the arrows go up and down, Tab to the second reading. A figure is written as its field is left.",
    ), "Measure"),
    "listen.page": Help("A digital tape", (
        "Press “Listen”: the tape sends its readings under the pair number shown. Each fills the next field, is read back large, and can be taken back.",
        "Of three readings of one place the two that agree stay.",
    ), "A digital tape"),
    "listen.stand_in": Help("The tape stand-in", (
        "Sends what a digital tape would send. Write the pair number of the chart that listens, then a reading.",
    ), "A digital tape"),
    "charts.over_time": Help("Charts over time", (
        "Two charts side by side: what changed, and which garments that makes stale. A garment stays on its chart until you draw it on the newest.",
    ), "Charts over time"),
    "schools.gallery": Help("Choosing a method", (
        "Every method, drawn from this wearer's own measures, with what it still needs and what it means for this body.",
    ), "Methods"),
    "board.draft": Help("The draft", (
        "Steps: how it is drawn, each with its sum. Point at a line or a letter and its figure and working stand below the drawing.",
        "Settings: try them, the drawing follows. Nothing is kept until you press Keep; what you tried is found again when you come back.",
        "Checks: what is true and what is not, with the seam lit and what would mend it.",
        "Garment: where it stands, notes, name, copies, versions.",
        "Wheel or two fingers: closer. Drag: move. “Measure” takes a length between two points.",
    ), "Draft"),
    "style.station": Help("Style", (
        "Press an edge or a dart: what can be done there is offered, with a picture of what it would do.",
        "Before is dashed, after is solid. Pull the yellow dots, or use the fields; nothing is kept until you press Keep.",
        "Press a step of the recipe to change it where it stands: all after it is drawn again. O and Y walk back and forth.",
    ), "Style"),
    "designs.index": Help("Designs", (
        "A design is a block and a recipe, without a wearer: it is drawn anew on every body.",
        "Open one to hand it to wearers, to see it on everybody, to keep versions, to write it as a file.",
    ), "Designs"),
    "designs.one": Help("A design", (
        "Garments that follow it change with it; those that stay keep what it was.",
        "The recipe is changed at the station Style of a garment that follows it.",
    ), "Designs"),
    "designs.everybody": Help("On everybody", (
        "The same recipe on each body. Where it is not true or cannot be drawn, the reason stands under the picture.",
    ), "Designs"),
    "sizes.chart": Help("A size chart", (
        "Measures by size. Copy a chart of the house to change it; a figure that leaves the run of its row is named.",
        "The base is the size a design is drawn on. The key is the measure a wearer is sought by.",
        "CSV goes both ways; a wearer or a whole company can become a chart.",
    ), "Size charts"),
    "rules.table": Help("A rule table", (
        "For each kind of piece: how far each spot moves out and up in one step. Copy the table to change it.",
        "The test line adds the figures up on a garment and marks what is not as it should be.",
        "It prints as a ruler in true size, to grade on card.",
    ), "Rule tables"),
    "grading.nest": Help("The nest", (
        "All sizes over each other. Press a size to pick it out, a spot to see it dotted; lay them by another spot, or by two.",
        "A size that is not true is boxed, and its reasons stand at the side.",
        "A setting can be another from a size on.",
        "Where the chart grows otherwise than the table it says at which girth, in which size, by how much.",
    ), "Sizes"),
    "grading.dots": Help("Dots", (
        "One spot in every size, as it would be pricked. N goes to the next spot, B to the one before.",
        "Write another rule for it: for this piece only, or in the table for every piece of its kind, also from one size on.",
    ), "Sizes"),
    "grading.figures": Help("Figures by size", ("Lengths, girths and darts with the steps between them. The odd one out is marked.",), "Sizes"),
    "grading.ways": Help("Ways of grading", ("Two ways in one size, over each other, and what parts them spot by spot and seam by seam.",), "Sizes"),
    "grading.mix": Help("Sizes mixed", (
        "A size for each level, and one for the lengths. For a wearer the chart says which size each measure is.",
        "The ease it comes to and how far the side jogs stand below. It prints from the yellow button.",
    ), "Sizes mixed"),
    "fit.station": Help("Alterations", (
        "What was pinned, done to this wearer’s paper. Dashed is before, solid after; the list says what else it moves.",
        "It is done to the block before the steps of the design, so that sleeves, facings and linings follow. One side only is done last.",
        "Leave one out to see the paper without it. When a newer chart gives what it adds, that is said: drop it then.",
    ), "Fit"),
    "fit_stand.stand": Help("The stand test", (
        "The garment walked with the tape beside the chart, darts shut. “Usually” is what the same design has on the body of the figure table.",
        "What the draft never looked at is a witness: where it is off, read the body again and look there first.",
    ), "Fit"),
    "fit_stand.room": Help("Room", (
        "The finished girth against the body from top to hem. Where the line touches the body there is no room.",
        "The figures stand in the list; in front and behind where the front arcs were read.",
    ), "Fit"),
    "rounds.listed": Help("Fittings", (
        "Begin one when the wearer stands there, with the foundation and the shoes of the costume.",
    ), "Fit"),
    "rounds.one": Help("A fitting", (
        "Judge in this order: good is worth noting as well, it speaks against causes. Tap the figure, choose the sign, write what was pinned.",
        "Once the page is open it needs no network: what is noted waits on the phone and is sent when there is one, each thing once.",
        "At the right stands what may be behind each sign, the likeliest first, with the reason in figures. Press one to try it on the paper.",
    ), "Fit"),
    "nest_files.choose": Help("Sizes to print", ("One size, all over each other with a layer for each, or each by itself in a ZIP.",), "Sizes"),
    "cast.page": Help("The cast", (
        "Who wears which size, with what is altered, and who needs a draft of their own. It is planned anew when charts change.",
        "Set what a seam lets out, what can be taken in, what a hem takes up; and whether sizes or hours count.",
    ), "The cast"),
    "lay.index": Help("Lays of cloth", (
        "Choose a cloth as the pieces name it and the garments that are cut from it: one, a costume, a whole cast. They are laid at once.",
        "What each takes stands beside it: the length of the lay, with what it shrinks by and rounded up, is what you buy.",
    ), "Lays of cloth"),
    "lay.page": Help("A lay", (
        "The best so far is shown while a better one is sought; stop whenever it is good enough, it is kept.",
        "Drag a piece, or move it with the arrow keys. It comes to lie where there is room near there, turned only as the grain allows; else it goes back and the figures say why.",
        "Bars are matched at the first level a piece has, stripes at the middle of the body. What cannot be matched by both seams at once stays yours to judge.",
    ), "Lays of cloth"),
    "make.station": Help("The order of work", (
        "Each step says why it stands where it does, what it waits for, and how it is done. Press Done, or N, when it is.",
        "Drag a step in the list, or put it before another: where it cannot be sewn, what blocks it is said.",
        "What has a bar before its number is sewn in one with the step above it, or at one setting of the machine.",
        "When two sides do not come out even, measure both: the draft knows which of them has changed.",
    ), "Make"),
    "make.cloth": Help("By the cloth", (
        "Say what each cloth of the garment is: how it is marked, sewn and pressed follows, and goes into every step.",
    ), "Make"),
    "make_care.page": Help("With care", (
        "Tick what is done in the garment on stage: what that asks for stands on every card of it. These are the usual cautions; local codes and licensed people decide.",
    ), "Make"),
    "planning.production": Help("Calendar", (
        "Write down the dress rehearsal: everything is reckoned back from it, garment by garment, in working days. A garment with a day of its own goes by that.",
        "Late is what is not done by its last day, with what it waits for. What is done follows from the work: measured, cut, ticked, fitted, finished.",
    ), "Calendar, stock, book"),
    "planning.everything": Help("Calendar over all", (
        "What is late and what comes next, over all productions. The iCalendar file goes into any other calendar.",
    ), "Calendar, stock, book"),
    "stock.index": Help("The stock", (
        "Cloth with its length and width, notions by number, and where they lie. A lay can use what lies here first; the shopping list takes it off.",
    ), "Calendar, stock, book"),
    "shopping.listed": Help("Shopping list", (
        "What the garments that are not finished take, less the stock. Tick what is bought; on a phone it is as large as a thumb.",
    ), "Calendar, stock, book"),
    "book.page": Help("The book of a costume", (
        "Pictures from all sides, what is worn over what, who opens what in a quick change, hours and costs, what went wrong.",
        "It prints twice: for the workroom with pieces, hours and costs; for the dresser with how it is put on and comes off.",
    ), "Calendar, stock, book"),
    "training.index": Help("Practice", (
        "Draft along by hand on your own paper, or find the one mistake in a chart, a draft, a pattern. The bodies are made up.",
        "Say who you are: how far you are is kept under that name.",
    ), "Practice"),
    "training.one": Help("An exercise", (
        "One line is wrong. Point at it; you may write what should stand there. Then it is said what the mistake would do at the end.",
    ), "Practice"),
    "training.along": Help("Draft along", (
        "Draw the step, measure the figure on your paper, write it down. Two millimetres are as good as drawn; more than five are told with what may have happened.",
    ), "Practice"),
    "house_cloths.index": Help("Cloths", (
        "What a cloth asks for follows from what it is. Copy one, change what it is, or write your own words over the usual.",
    ), "Make"),
    "rail.index": Help("The rail", (
        "Finished garments with what they measure. Choose a wearer: what fits comes first, with what has to be altered.",
        "The ease a garment wants is that which it has over its wearer; without any it fits a body of just its measures.",
    ), "The rail"),
    "costumes.every": Help("Costumes", (
        "From the skin outwards. What lies under a garment takes room in its draft: 3 cm for an ordinary layer, 6 for a padded one.",
        "Write where each closes, how it holds and how it comes off in a hurry; the sheet prints all of it.",
    ), "Costumes"),
    "compare.compare": Help("Laid over another", (
        "Two drafts over each other, and every figure that differs: edges, girths, darts, areas. Nothing is judged here; makers differ.",
    ), "Checks"),
    "walk.seam": Help("Walking a seam", (
        "One piece is laid along the other, from the start of the seam to its end. The dashed piece leaves the solid one where they differ.",
    ), "Checks"),
    "paper.cut": Help("Sheets of paper", (
        "Choose the paper, print the first page alone and measure its two squares, then print the rest. Where they are not right, measure the printer once.",
        "Pieces are turned where that saves paper; empty sheets are left out. A PDF has a layer for each kind of line.",
        "When the cloth is cut, tick it off: the first page then asks for the fitting.",
    ), "Cut"),
    "edges.edges": Help("Allowances", (
        "A plan for the cloth, one for its lining, one for its interfacing. Point at an edge to give it a figure of its own; the other side of the seam gets the same.",
        "The corner at each end is carried straight on or squared off; a notch can be set anywhere, its partner comes by itself.",
    ), "Allowances"),
    "paper.listed": Help("Cut list", ("What is cut from which cloth, how far in every seam is sewn, and what else is needed.",), "Cut"),
    "printers.index": Help("Printers and plotters", (
        "Measure the square of 5 cm as it comes out: sheets for that printer are drawn so that they come out right.",
        "With an address a plotter takes plot files. `widehem plotter` stands in for one.",
    ), "Printers and plotters"),
    "materials.production": Help("Materials", ("Every cloth and notion over all garments that are not finished, or of one costume. All patterns can be written into one ZIP.",), "Materials"),
    "outlines.begin": Help("Outlines from elsewhere", ("A drawing in SVG or DXF, or a picture to trace, becomes a design without a method.",), "Outlines from elsewhere"),
    "outlines.station": Help("Naming edges", (
        "Point at a piece: say what it is, how it is cut, what each edge is. Corners can be set and taken away.",
        "Seams are proposed from the roles of edges that are as long as each other.",
    ), "Outlines from elsewhere"),
    "tracing.trace": Help("Tracing a picture", ("First both ends of a known length, then round the piece: corners, and points on its curves.",), "Outlines from elsewhere"),
    "archives.begin": Help("Archives", ("A production from another house, taken in as a production of its own: every figure comes out the same.",), "Archives"),
    "events.versions": Help("Versions", ("Every state the garment had. Open one, lay it over today's, or bring it back; nothing is lost by that.",), "Taking back, the bin, versions"),
    "events.the_bin": Help("The bin", ("What was deleted lies here for thirty days. What was done lately stands below, with a way to take it back.",), "Taking back, the bin, versions"),
    "copy_docket.choose": Help("Copying a garment", ("For the same wearer, another, or several at once: same settings, each drawn on the wearer's own newest chart.",), "Find and copy"),
    "notes.page": Help("Notes", ("Words and pictures, seen wherever this is worked on. Pictures are drawn anew: place, time and camera are left out.",), "Notes"),
    "find.page": Help("Find", ("Any part of a name; several words are looked for together. N opens the first that was found.",), "Find and copy"),
    "lists.all_lists": Help("Lists of measures", ("Which measures a session takes. Every production can use them.",), "Measure"),
    "tables.table": Help("Figure tables", ("How the measures of one kind of build follow from one another. They judge and estimate; copy one to change it.",), "Figure tables"),
    "ease.plan": Help("Plans of ease", ("How much larger than the body a garment is, level by level, and what that does to the arm. Copy a plan to change it.",), "Methods"),
    "ease.garment": Help("Ease from a garment", ("Measure a garment that fits; what it is larger than the body becomes a plan.",), "Methods"),
    "house.values": Help("House values", ("What your workroom has in place of the usual. New garments begin with them; those there already say when they differ.",), "House values"),
    "armhole.typed": Help("A sleeve for a garment that exists", ("Measure its armhole, front and back and depth, and the sleeve is drafted for it.",), "Methods"),
    "armhole.again": Help("A measured armhole", ("The armhole this sleeve is drawn for, as it was measured. Measure again and type it anew.",), "Methods"),
    "at_work.page": Help("Work that lasts", ("It goes on while you do something else; how far it is stands at the bottom of every page, with a way to stop it.",), "Work that lasts"),
    "files.look": Help("A file of charts", ("What would change, wearer by wearer, before anything is stored. Undo takes all of it back.",), "Charts in and out"),
}  # fmt: skip
ANYWHERE = Help(
    "Help", ("Measure, draft, cut: the stations at the left lead from one to the next. The yellow button is always the next step.",), "Keys"
)  # fmt: skip
