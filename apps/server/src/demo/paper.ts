export const paper = `
title: Tides and timetables

subtitle: How a hand-hauled ferry kept time in the Saltmarsh estuary

heading1: Introduction

A ferry is a promise made to people who are not there yet. Someone standing on the far bank has to be able to trust that the boat will come, and to know roughly when. On a road or a railway that trust is written down as a timetable, and the timetable is ruled by the clock. On an estuary it cannot be. The water is there at one hour and gone at another, and the hour moves by some fifty minutes every day. This paper asks how the ferrymen of the Saltmarsh estuary, over about a century and a half, reconciled the clock that their passengers lived by with the tide that they themselves lived by.

The question is a practical one, for the Saltmarsh Ferry Trust is about to bring the chain ferry back. It will cross the same channel, hauled by hand along a chain of the same pattern, and it will face the same difficulty. The Trust has a printed timetable to draw up and a harbour authority to satisfy. What follows is meant to be of use to it, but the matter has a wider interest too: it is a small, well-documented case of how a community holds two kinds of time in its head at once.

I draw on three bodies of evidence. The first is the run of ferry books in the Toll House, in which each crossing was entered with its hour, its passengers and, in a narrow column at the right, a mark for the state of the tide. The second is the set of printed notices put up on the slipway, of which thirty-one survive. The third is a series of conversations with people who crossed as children, in the last years of the old ferry. None of these was made for the purpose of telling us about time, and that is their strength.

heading1: The estuary and its water

heading2: The shape of the channel

The estuary runs roughly from north to south and is about six hundred metres wide at the slipways when the tide is full. At low water of a spring tide the channel between the mudbanks is barely seventy metres across and less than two metres deep. The east slipway reaches the channel at almost any state of the tide, because it was carried out over the mud on piles. The west slipway does not. For about two hours on either side of low water it ends in mud, and a passenger who arrives then must walk the last part on hurdles, or wait.

This difference between the two banks explains much of what follows. Seen from the east, the ferry could run nearly all day. Seen from the west, it could run for about eight hours out of every twelve. The ferry books were kept on the east bank, by men who slept there, and it takes some effort to see in them the impatience of the people on the other side.

heading2: The rhythm of springs and neaps

The tide rises and falls twice in a little under twenty-five hours. High water is therefore later each day, by an amount that varies between about half an hour and an hour and a quarter. Every fortnight, near new and full moon, the range is large and the water comes and goes quickly; these are the springs. In between come the neaps, when the range is small, the stream is slack, and the channel never empties as far.

For a ferry hauled along a chain the stream matters more than the depth. At the height of a spring ebb the water runs through the narrows at more than three knots. The chain bows downstream, the boat lies at an angle to it, and the work of hauling is doubled. Several entries in the ferry books put it plainly.

quotation: Ebb very strong. Four on the chain and a passenger besides. Eleven minutes over and would not go again till it eased.

At neaps, on the other hand, two people could bring the empty boat across in six minutes, and one entry records with satisfaction that a boy of twelve had done it alone in nine.

heading2: What counts as late

If a crossing may take six minutes or eleven, and the landing may be at the end of the slip or a hundred metres short of it, then the notion of a departure on time needs some care. The ferry books do not record lateness at all. They record the hour of leaving, to the nearest five minutes, and they record waiting, when there was waiting. The reasons that are given for waiting are instructive. In the volume that I have counted in full, which covers fourteen months, there are two hundred and twelve of them. Wind accounts for fifty-eight, the stream for forty-nine, water over the west hurdles for forty-four, and fog for twenty-seven. The rest are cattle, funerals, a broken shackle, and, on nine occasions, a named passenger who was known to be coming and had been waited for.

heading1: Three ways of telling the time

heading2: The clock on the Toll House

The Toll House has carried a clock since the year in which it was built. It faces the water, not the road, and its dial is large enough to be read from the west slipway with good eyes. It was wound every Saturday by the ferryman, and the cost of its oil was charged to the ferry. The clock therefore belonged to the crossing, and it gave the people of the west bank their hour. Two of those with whom I spoke remembered that their parents set the kitchen clock by it, through a spyglass.

Yet the clock did not say when the ferry would go. It said what time it was, and the passenger had to work out the rest. To do so they needed to know the tide.

heading2: The tide board

Beside the clock, from about the middle of the period, there hung a tide board: a painted panel with a slot in which a card was placed each morning, giving the hours of high water that day. The cards were written by hand. A box of them survives, some four hundred in number, much used and evidently kept from one year to the next, since a given pair of hours comes round again. It was an economical arrangement. The ferryman did not compute the tide; he looked at yesterday's card and took the one behind it, and corrected himself at the full moon.

The board gives us the first way in which clock and tide were brought together. It expressed the tide in the language of the clock. It did not, however, say what followed from it. Everyone was supposed to know that the ferry ran from the west for four hours on either side of high water, and the notices confirm that this rule was so familiar that it hardly needed to be printed.

heading2: The flag

The second way went in the opposite direction. When the ferry was running, a yellow flag flew from a staff on the east slipway; when it was not, the staff was bare. The flag expressed the outcome of the whole reckoning, water and wind and stream together, in a single sign that could be seen from the church on the west bank. It told people nothing about the time. It told them whether to set out.

Those who remembered the ferry remembered the flag first. “You looked for the yellow,” one of them said, “before you looked for your boots.” Nobody whom I asked could recall ever having read the tide board. It was for strangers.

heading2: The bell

The third way was the bell. A passenger on the west slipway who wished to be fetched rang it, and the ferryman came when he could. In fog the bell was also rung from the boat. In the ferry books a small drawing of a bell in the margin marks a crossing that was made on call, and in the volume counted such crossings make up a little over a third of the whole. They are spread quite evenly over the day, but not over the tide: nearly all fall within the hour after the west slip came clear. People had watched the water go down, or come up, and rang the moment it suited them.

heading1: The printed timetable

heading2: Promises in print

The first printed notice that survives is a modest sheet which lists the fares, forbids smoking near the hay, and says of the hours only that *the ferry is worked daily, tide permitting*. Those two words carried the whole weight of the matter for some forty years. They appear, in the same place, on the next eleven notices, through two changes of printer.

Then, rather suddenly, comes a notice with hours. It announces a boat from the west at eight in the morning and a boat from the east at six in the evening, every weekday, *without fail*. The reason is not hard to find. The mill on the east bank had opened in the spring of that year, and it took its hands from the west. A mill begins at a fixed hour. For the first time there was a body of passengers who had to cross by the clock, and who would lose a quarter of a day's wage if they did not.

heading2: How the promise was kept

The tide had not been consulted, and on about five days in every fortnight the west slipway was in mud at eight in the morning. The ferry books of the following winter show what was done. On the days in question the eight o'clock boat is entered as usual, but with a note: *by the hurdles*. Additional hurdles had been bought, and a line of them was laid out across the mud to the edge of the channel, to a mooring that could be reached at any state of the tide. It was some two hundred paces in the dark, with a lantern at each end. The mill paid for the hurdles, the ferryman's son laid them, and the timetable was kept.

This is, I think, the most telling episode in the whole story. The promise in print did not change the water. It changed the bank. A fixed hour was bought with timber and labour and wet feet, and the cost fell, as the cost of fixed hours usually does, on those who had least say in fixing them.

quotation: To laying of hurdles, nineteen mornings, at fourpence. To lantern oil. To Anne Pole for drying of stockings, by request of the hands.

heading2: The limits of the promise

The words *without fail* last for six years and then disappear. In their place is a table, the first that deserves the name. It has a column for each month and gives, for every day, the first and last boat from the west. It is computed from the tide, and it was computed well: I have compared sixty of its entries, chosen at random, with hours reckoned by modern methods, and in fifty-one the difference is less than ten minutes. Somebody had taken a great deal of trouble. The hand in the ferry books changes in the same month, and the new hand is that of the ferryman's daughter, Ruth Caddow, who had been a pupil-teacher.

Her table made the tide visible to people who had only known its effects. It was printed on card and hung in kitchens. Several survive with pencil marks against particular days: washing, chapel, a sister's visit. For the first time people on the west bank could plan a crossing a month ahead. They did so by the tide, but they did it with a calendar.

heading1: Living in two times

heading2: Habits of reckoning

How did people carry both times in their heads? The conversations suggest that for the most part they did not. They carried neither, and looked. The flag, the colour of the mud, the sound of the water on the piles, the lean of the moored boats: any of these told them whether the ferry was running, and for how long it was likely to go on doing so. Clock time entered only when something on the other side demanded it. Then one counted backwards from the hour of the school or the train, and forwards from the look of the water, and saw whether the two met.

Children were taught this as a kind of game. One person recalled being stood at the window by her grandmother and asked, each morning, how long until the hurdles. A right answer earned a crust with sugar. “I could not read a clock till I was nine,” she said, “but I could read that mud at five.”

heading2: Waiting as a skill

A second habit was waiting. The ferry books show it from the ferryman's side; the conversations show it from the passenger's. Both slipways had a shelter, with a bench and a stove, and on the west side a shelf of books that nobody admitted to having provided. People did not speak of lost time. They spoke of who had been there. Matters were settled in the shelter that could not have been settled in a parlour, since neither party had come there on purpose.

It would be easy to be sentimental about this. Waiting was also cold, and it was least agreeable for those who could least afford it: the mill hands, the women with baskets, the doctor's boy. But it is worth noting that when a faster ferry with an engine was proposed, in the last years, the objection raised at the meeting was not its price or its smoke. It was that there would be no time to talk.

heading2: When the times disagreed

Sometimes the two kinds of time disagreed beyond repair. The ferry books record eleven weddings that were delayed by the water, one that was brought forward, and a single election at which the west bank voted four hours late by special leave. In each case the adjustment was made by the clock's side of the matter, not the tide's. The church, the court and the poll could be moved. The only institution that never once waited, as far as I can find, was the mill.

heading1: What the Trust might learn

heading2: Say what is certain

The history suggests three things to those who now have a timetable to draw up. The first is to promise only what the water allows. The notice that said *without fail* was kept at a price that the Trust could not decently ask of anyone. A table on Ruth Caddow's plan, giving for every day the first and last boat from each bank, says as much as can truthfully be said, and it can now be computed for years ahead at no expense.

heading2: Show what is true now

The second is to keep the flag. A table tells people what will probably be the case; a flag tells them what is. Fog, wind and a broken shackle are not in the table. Whatever other means the Trust uses to make its state known, something large and yellow, which can be seen by anyone who lifts their head, will be trusted sooner than any of them.

heading2: Make the wait worth having

The third is to look after the waiting. If it cannot be abolished it can be furnished. The shelter on the west slipway has lost its roof, but its bench is sound, and the chimney draws. A stove, a lamp and a shelf of books would cost less than the paint for the boat.

heading1: Conclusion

It is usual to describe the coming of clock time as a conquest: the old, natural, irregular hours give way to the new, mechanical, even ones. The Saltmarsh ferry does not bear this out. Here the clock came early and was welcomed, the tide never went away, and for about a hundred and fifty years people went on using both, together with a flag and a bell, without apparent discomfort. When the two were at odds it was not nature that yielded but the timetable, or else the feet of those who walked the hurdles.

What made the arrangement work was that each kind of time had its own sign, and that each sign was honest. The clock said what hour it was. The board said when the water would be high. The flag said that the ferry was running, and the bell said that somebody was there. No one of them pretended to be another. The single time that one of them did, in the notice that promised a boat without fail, is also the single time in the whole of the record that anyone was badly served.

The chain will be laid again in the spring. If the people who work it can say as little as is true, and show the rest, their passengers will find, as those passengers' great-grandparents did, that one can keep very good time by a thing that is never twice at the same hour.

heading1: Notes on the evidence

heading2: The ferry books

There are seven volumes, with a gap of some six years between the fourth and the fifth, when according to a note on the flyleaf the book of the day “went over the side with the cash box, and only the cash box was got back”. I have read all seven and counted one. The counts given above should be taken as an indication of proportions; the narrow column is not always legible, and marks that I have read as wind may now and then have been a squashed insect.

heading2: The notices

The thirty-one notices are kept flat in a drawer and are in fair condition. Eighteen bear a date; the others have been placed by their printer and by the fares. They were printed in runs of fifty or fewer, and those that survive do so because they were used to line shelves.

heading2: The conversations

I spoke with nine people between the ages of seventy-four and ninety-one, each once and two of them twice, for between half an hour and a whole afternoon. I took notes and read them back. All agreed to be quoted, and none wished to be named except one, who wished it to be known that her crust had had butter on it as well.
`
