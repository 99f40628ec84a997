"""An offer on paper and as a table."""

from roomy_hull.core.days import dated, day_of
from roomy_hull.formats.book import Book
from roomy_hull.formats.book_parts import BookPage, Table
from roomy_hull.formats.csv_tables import table
from roomy_hull.job.brief import Offer
from roomy_hull.job.model import Job
from roomy_hull.shop.shop import Shop

CAUTION = (
    "Masses and loads are planning figures: the rating plates, the vehicle-certification engineer, licensed "
    "electricians and "
    "gas fitters and the local road authority decide. Mains, gas and certification are done and signed by licensed people."
)


def _day(words: str) -> str:
    found = day_of(words)
    return dated(found) if found is not None else words


def offer_book(job: Job, offer: Offer, shop: Shop) -> Book:
    """Lay an offer out.

    Returns: What is offered and for how much; then what is behind it, part by part.
    """
    brief = job.brief
    who = f"For {brief.customer}. " if brief.customer else ""
    words = [
        f"{who}{job.vehicle.name}. Quote {offer.number} of {_day(offer.day)}, open until {_day(offer.until)}."
    ]
    if brief.purpose:
        words.append(f"What it is for: {brief.purpose}")
    base = offer.net("")
    rows = [("The build as drawn", f"{base:,.2f}", f"{base * (1 + offer.tax):,.2f}")]
    for option in offer.options:
        net = offer.net(option)
        taken = " (taken)" if option in offer.taken else ""
        rows.append((f"With {option}{taken}", f"+ {net:,.2f}", f"+ {net * (1 + offer.tax):,.2f}"))
    if offer.options:
        whole = offer.gross(offer.options)
        rows.append(("With everything", f"{whole / (1 + offer.tax):,.2f}", f"{whole:,.2f}"))
    if offer.agreed:
        agreed = offer.gross(offer.taken)
        rows.append((
            f"As agreed on {_day(offer.agreed)}",
            f"{agreed / (1 + offer.tax):,.2f}",
            f"{agreed:,.2f}",
        ))
    first = BookPage(
        f"Quote {offer.number}: {job.name}", (*words, CAUTION), (),
        (Table(("", "net", f"with {100 * offer.tax:.0f} % tax"), tuple(rows)),),
    )  # fmt: skip
    pages = [first]
    for option in ("", *offer.options):
        title = f"What is in it: {option}" if option else "What is in the build"
        lines = tuple(
            (
                x.words,
                f"{x.amount:g} {x.unit}" if x.unit else "",
                f"{x.price * (1 + offer.margin):,.2f}",
            )
            for x in offer.lines
            if x.option == option
        )
        pages.append(BookPage(title, (), (), (Table(("what", "how much", "net"), lines),)))
    wished = tuple(
        (w.name, w.need, w.option or "in the build", w.reason)
        for w in brief.wishes
        if w.need != "later"
    )
    if wished:
        pages.append(
            BookPage(
                "Your wishes, and where they are",
                (),
                (),
                (Table(("wish", "", "in", "why"), wished),),
            )
        )
    foot = f"{shop.name}; quote {offer.number} of {offer.day}; prices in the shop's own money"
    return Book(f"Offer {offer.number}", foot, tuple(pages))


def offer_csv(offer: Offer) -> str:
    """Write an offer's lines as CSV: option, what, how much, cost, net with margin, with tax."""
    rows: list[list[object]] = [["option", "what", "amount", "unit", "cost", "net", "with tax"]]
    for x in offer.lines:
        net = x.price * (1 + offer.margin)
        rows.append([
            x.option,
            x.words,
            x.amount,
            x.unit,
            round(x.price, 2),
            round(net, 2),
            round(net * (1 + offer.tax), 2),
        ])
    for option in ("", *offer.options):
        net = offer.net(option)
        rows.append([option, "sum", "", "", "", round(net, 2), round(net * (1 + offer.tax), 2)])
    return table(rows)
