"""Signing in and out, and what people do about their own accounts."""

from __future__ import annotations

from typing import Any, cast

from django.contrib.auth import authenticate, login, logout
from django.contrib.auth.base_user import AbstractBaseUser
from django.contrib.auth.models import AnonymousUser, User
from django.db.models import QuerySet
from django.http import HttpRequest, JsonResponse
from django.utils.translation import get_language_from_request
from drf_spectacular.utils import extend_schema
from rest_framework import mixins, viewsets
from rest_framework.authentication import SessionAuthentication
from rest_framework.exceptions import ValidationError
from rest_framework.permissions import AllowAny
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.throttling import BaseThrottle, ScopedRateThrottle
from rest_framework.views import APIView

from server.accounts import services
from server.accounts.middleware import forget_browser
from server.accounts.models import AccessToken, Preferences, SignedIn
from server.accounts.serializers import (
    AccessTokenSerializer,
    CredentialsSerializer,
    NewTokenSerializer,
    PasswordSerializer,
    PreferencesSerializer,
    SessionSerializer,
    SignedInSerializer,
)
from server.accounts.tokens import from_this_site


def locked_out(request: HttpRequest, *given: Any, **more: Any) -> JsonResponse:
    """What somebody is answered who has guessed too often, whatever was asked."""
    detail = "Too many wrong passwords. Try again in a quarter of an hour."
    return JsonResponse({"detail": detail}, status=429)


def _session(user: AbstractBaseUser | AnonymousUser) -> dict[str, Any]:
    return {"username": user.get_username(), "administers": bool(getattr(user, "is_staff", False))}


class SessionView(APIView):
    """Who is signed in."""

    permission_classes = [AllowAny]
    throttle_scope = "sign-in"

    def get_throttles(self) -> list[BaseThrottle]:
        return [ScopedRateThrottle()] if self.request.method == "POST" else []

    @extend_schema(responses=SessionSerializer)
    def get(self, request: Request) -> Response:
        return Response(_session(request.user))

    @extend_schema(request=CredentialsSerializer, responses=SessionSerializer)
    def post(self, request: Request) -> Response:
        from_this_site(request)
        given = CredentialsSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        user = authenticate(request._request, **given.validated_data)
        if user is None:
            raise ValidationError("Wrong name or password. Try again.")
        login(request, user)
        return Response(_session(user))

    @extend_schema(request=None, responses=SessionSerializer)
    def delete(self, request: Request) -> Response:
        logout(request)
        response = Response(_session(AnonymousUser()))
        forget_browser(response)
        return response


def _own(request: Request) -> User:
    """Whoever asks; nobody else comes so far."""
    return cast(User, request.user)


class PasswordView(APIView):
    """Changing one's password."""

    authentication_classes = [SessionAuthentication]
    throttle_scope = "sign-in"

    def get_throttles(self) -> list[BaseThrottle]:
        return [ScopedRateThrottle()]

    @extend_schema(request=PasswordSerializer, responses={204: None})
    def post(self, request: Request) -> Response:
        given = PasswordSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        services.change_password(request._request, _own(request), **given.validated_data)
        return Response(status=204)


def _first_preferences(request: Request) -> Preferences:
    """Of somebody who has preferred nothing yet: in the language of the browser, if the screen has that."""
    language = get_language_from_request(request._request).split("-")[0]
    known = language if language in Preferences.Language.values else Preferences.Language.ENGLISH
    return Preferences(user=_own(request), language=known, titles=known)


class PreferencesView(APIView):
    """How one likes the interface to be."""

    @extend_schema(responses=PreferencesSerializer)
    def get(self, request: Request) -> Response:
        own = Preferences.objects.filter(user=_own(request)).first() or _first_preferences(request)
        return Response(PreferencesSerializer(own).data)

    @extend_schema(request=PreferencesSerializer(partial=True), responses=PreferencesSerializer)
    def patch(self, request: Request) -> Response:
        own = Preferences.objects.filter(user=_own(request)).first() or _first_preferences(request)
        given = PreferencesSerializer(own, data=request.data, partial=True)
        given.is_valid(raise_exception=True)
        given.save()
        return Response(given.data)


class SignedInViewSet(mixins.ListModelMixin, mixins.DestroyModelMixin, viewsets.GenericViewSet[SignedIn]):
    """Where one is signed in; deleted, it is signed out."""

    authentication_classes = [SessionAuthentication]
    serializer_class = SignedInSerializer
    queryset = SignedIn.objects.none()
    pagination_class = None

    def get_queryset(self) -> QuerySet[SignedIn]:
        alive = services.signed_in(_own(self.request))
        return SignedIn.objects.filter(pk__in=[row.pk for row in alive])

    def perform_destroy(self, instance: SignedIn) -> None:
        services.end(instance)


class AccessTokenViewSet(
    mixins.ListModelMixin, mixins.DestroyModelMixin, viewsets.GenericViewSet[AccessToken]
):
    """One's tokens; deleted, they are revoked. With a token no other is made."""

    authentication_classes = [SessionAuthentication]
    serializer_class = AccessTokenSerializer
    queryset = AccessToken.objects.none()
    pagination_class = None

    def get_queryset(self) -> QuerySet[AccessToken]:
        return AccessToken.objects.filter(user=self.request.user.pk)

    @extend_schema(request=AccessTokenSerializer, responses={201: NewTokenSerializer})
    def create(self, request: Request) -> Response:
        given = AccessTokenSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        row, token = services.make_token(_own(request), **given.validated_data)
        return Response({**AccessTokenSerializer(row).data, "token": token}, status=201)
