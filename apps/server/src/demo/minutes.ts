export const minutes = `
title: Minutes of the trustees

subtitle: Monday 3 November, half past six, the Old Toll House

**Present:** Odile Marsh (chair), Imre Fallow (secretary), Tamsin Reed (treasurer), Jonas Weir, Hettie Lode. **Absent with apologies:** Piers Oakum. **In attendance:** Wilf Sandry, boatbuilder.

heading1: 1 Minutes of the last meeting

The minutes of 6 October were read and signed as a true record. Hettie Lode asked that the tonnage in item 4 be given in words as well as figures; this was agreed.

heading1: 2 The hull

heading2: 2.1 Report of the boatbuilder

Wilf Sandry reported that the hull has lain afloat for four weeks and has taken up well. The garboard seam on the port side weeps a little at springs and will be payed again when the boat is next on the slip. The deck is laid, the ramps are hung, and the chain wheels turn freely. What remains is the guard rail, which waits for ash of the right length.

heading2: 2.2 The load test

On 21 October the haulage gear was proved with two tonnes of shingle in sacks. Four people brought the ferry across in eleven minutes against a wind of force four. The brake held on the ebb. The trustees thanked the sixteen volunteers who carried the shingle on, and off again.

**Resolved,** on the motion of Jonas Weir, seconded by Hettie Lode, that the load test be accepted as complete. Carried, five in favour.

heading1: 3 Mooring rights

The secretary read a draft of the letter to the harbour authority. Odile Marsh asked that the hours be given by the tide and not by the clock, since the authority thinks in tides. Tamsin Reed asked that the insurers’ letter be enclosed. With these changes the letter was approved.

**Action:** Imre Fallow to send the letter by 14 November.

heading1: 4 Money

heading2: 4.1 Accounts

The treasurer laid the accounts to the end of October before the meeting. Gifts in the quarter came to 4,212, of which 1,900 was raised by the supper on the slipway. Timber, fastenings and paint came to 2,745. The balance stands at 9,860, and 6,000 of it is kept for the landing stage.

heading2: 4.2 The donors’ letter

A letter of thanks will go to all who gave more than twenty in the year. Hettie Lode offered to write it, and to sign each copy by hand.

**Action:** Hettie Lode to write the letter; Tamsin Reed to send her the list by 10 November.

heading1: 5 Risk report

Jonas Weir presented the second draft. The trustees went through it section by section. Crossing in fog was discussed at length: the draft allows it with a lookout at each ramp and a bell; Odile Marsh held that nobody is ever in such haste. It was agreed that the ferry does not cross when the far landing cannot be seen.

**Resolved,** on the motion of Odile Marsh, seconded by Imre Fallow, that the report be adopted with that change. Carried, four in favour, one abstaining.

heading1: 6 Any other business

Piers Oakum had written to ask whether dogs travel free. It was agreed that they do, and that the notice on the slipway should say so.

heading1: 7 Next meeting

Monday 1 December, half past six, at the Old Toll House. The meeting closed at ten past eight.
`
